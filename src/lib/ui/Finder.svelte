<!--
@component Ctrl+K: any place, person, session, paper or act, by a few letters of it. Places are known here; everything else
the server looks up, and shows each what they may see.
-->
<script lang="ts">
	import { tick } from 'svelte';
	import { goto } from '$app/navigation';
	import { placesFor, type Found } from '$core/finder';
	import { getClock } from './clock-context';
	import { inWords, send } from './post';
	import Shortcuts from './Shortcuts.svelte';
	import { timeInFull } from './zone-beside';

	type Props = { places: { href: string; name: string }[]; open: boolean };
	let { places, open = $bindable() }: Props = $props();
	const clock = getClock();

	const KIND_NAMES: Record<Found['kind'], string> = {
		act: 'Acts',
		person: 'People',
		session: 'Sessions',
		paper: 'Papers',
		place: 'Places'
	};
	/** Typing rests so long before the server is asked. */
	const REST_MS = 40;

	let dialog = $state<HTMLDialogElement>();
	let text = $state('');
	let fromServer = $state.raw<Found[]>([]);
	/** What the lines from the server answer. */
	let answered = $state('');
	let trouble = $state<string | null>(null);
	let at = $state(0);

	const wanted = $derived(text.trim());
	const found = $derived<Found[]>([
		...(wanted === '' ? [] : fromServer.filter(({ kind }) => kind === 'act')),
		...placesFor(places, wanted).map(({ href, name }) => ({ kind: 'place' as const, title: name, detail: '', href })),
		...(wanted === '' ? [] : fromServer.filter(({ kind }) => kind !== 'act'))
	]);
	const isLooking = $derived(wanted !== answered);

	$effect(() => {
		if (!open) return;
		text = '';
		fromServer = [];
		answered = '';
		dialog?.showModal();
	});
	$effect(() => {
		const asked = wanted;
		at = 0;
		if (asked === '') return void (answered = '');
		const abort = new AbortController();
		const timer = setTimeout(async () => {
			const answer = await send<{ found: Found[] }>('GET', `/find?text=${encodeURIComponent(asked)}`, undefined, {
				signal: abort.signal
			});
			if (abort.signal.aborted) return;
			trouble = answer.ok ? null : inWords(answer.problem);
			fromServer = answer.ok ? answer.data.found : [];
			answered = asked;
		}, REST_MS);
		return () => {
			clearTimeout(timer);
			abort.abort();
		};
	});

	async function choose(one: Found | undefined) {
		if (!one) return;
		dialog?.close();
		await goto(one.href);
	}
	async function move(step: number) {
		at = (at + step + found.length) % Math.max(1, found.length);
		await tick();
		dialog?.querySelector('[aria-selected=true]')?.scrollIntoView({ block: 'nearest' });
	}
	/** What was typed and not answered yet is waited for, so that Enter never takes the line of other words. */
	let isWaited = $state(false);
	$effect(() => {
		if (!isWaited || isLooking) return;
		isWaited = false;
		void choose(found[at]);
	});
	function onkeydown(event: KeyboardEvent) {
		const keys: Record<string, () => void> = {
			ArrowDown: () => void move(1),
			ArrowUp: () => void move(-1),
			Enter: () => (isLooking ? (isWaited = true) : void choose(found[at]))
		};
		const run = keys[event.key];
		if (!run) return;
		event.preventDefault();
		run();
	}
	const show = () => (open = true);
</script>

<Shortcuts combined={{ 'Ctrl+k': show, 'Meta+k': show }} fromFields />

{#if open}
	<dialog
		bind:this={dialog}
		onclose={() => (open = false)}
		onclick={(event) => event.target === dialog && dialog.close()}
		class="bg-sheet text-ink border-line mx-auto mt-[10vh] w-[min(640px,94vw)] overflow-hidden rounded-2xl border p-0 shadow-xl backdrop:bg-black/40"
		aria-label="Find anything"
	>
		<input
			class="bg-sheet text-ink border-line w-full border-0 border-b px-5 py-4 text-[18px] focus:ring-0 focus-visible:outline-none"
			placeholder="A name, a number, a session, a place; or “hold Cecily Moor”"
			aria-label="What to find"
			role="combobox"
			aria-expanded="true"
			aria-controls="found-here"
			aria-activedescendant={found.length > 0 ? `found-${at}` : undefined}
			autocomplete="off"
			spellcheck="false"
			maxlength="100"
			autofocus
			bind:value={text}
			{onkeydown}
		/>
		<ul
			id="found-here"
			role="listbox"
			aria-label="Found"
			class="max-h-[56vh] min-h-[120px] overflow-auto p-2"
			data-testid="found-anything"
			aria-busy={isLooking}
		>
			{#each found as one, i (`${one.kind} ${one.href} ${one.title}`)}
				{#if i === 0 || found[i - 1].kind !== one.kind}
					<li class="text-ink-3 px-3 pt-2 pb-1 text-[12.5px] font-semibold" role="presentation">
						{KIND_NAMES[one.kind]}
					</li>
				{/if}
				<!-- svelte-ignore a11y_click_events_have_key_events -->
				<li
					id="found-{i}"
					role="option"
					aria-selected={i === at}
					class="aria-selected:bg-mist flex cursor-pointer items-baseline gap-3 rounded-lg px-3 py-2 text-[15px]"
					onclick={() => choose(one)}
					onpointermove={() => (at = i)}
				>
					<span class="min-w-0 truncate font-semibold">{one.title}</span>
					<span class="text-ink-2 ml-auto shrink-0 truncate text-[13.5px] max-sm:hidden"
						>{one.detail}{one.when ? ` ${timeInFull(one.when.at, one.when.zone, clock.now)}` : ''}</span
					>
				</li>
			{:else}
				<li class="text-ink-2 px-3 py-4" role="presentation">
					{trouble ?? (isLooking ? 'Looking…' : 'Nothing of that name. Try a part of it, or the candidate number.')}
				</li>
			{/each}
		</ul>
		<p class="text-ink-3 border-line border-t px-5 py-2 text-[12.5px]">
			<kbd>↑</kbd> <kbd>↓</kbd> choose · <kbd>Enter</kbd> go · <kbd>Esc</kbd> close · a verb first acts: hold, resume, message,
			give time, let in, free device
		</p>
	</dialog>
{/if}
