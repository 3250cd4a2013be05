<!-- @component Looks somebody up for the proctor beside them: the name as registered, the number, and where they are expected. -->
<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import Modal from 'flowbite-svelte/Modal.svelte';
	import type { FoundToday } from '$core/room';
	import { STATE_NAMES } from '$core/sitting';
	import { timeAndDate } from '$core/time';
	import { getClock } from '$ui/clock-context';
	import { inWords, send } from '$ui/post';
	import StateGlyph from '$ui/StateGlyph.svelte';
	import type { LiveRoom } from './room.svelte';

	let { room, onclose }: { room: LiveRoom; onclose: () => void } = $props();
	const clock = getClock();

	let open = $state(true);
	let text = $state('');
	let people = $state.raw<FoundToday[] | null>(null);
	let trouble = $state<string | null>(null);
	$effect(() => {
		if (!open) onclose();
	});
	$effect(() => {
		const wanted = text.trim();
		if (wanted === '') return void (people = null);
		const abort = new AbortController();
		const timer = setTimeout(async () => {
			const path = `/live/${room.sessionId}/find?text=${encodeURIComponent(wanted)}`;
			const answer = await send<{ people: FoundToday[] }>('GET', path, undefined, { signal: abort.signal });
			if (abort.signal.aborted) return;
			trouble = answer.ok ? null : inWords(answer.problem);
			if (answer.ok) people = answer.data.people;
		}, 150);
		return () => {
			clearTimeout(timer);
			abort.abort();
		};
	});
	const isHere = (one: FoundToday) => one.session.id === room.sessionId;
	function choose(one: FoundToday | undefined) {
		if (!one || !isHere(one)) return;
		room.focusId = one.sittingId;
		open = false;
	}
</script>

<Modal aria-label="Find somebody" bind:open title="Find somebody" size="sm" class="bg-sheet">
	<form
		onsubmit={(event) => {
			event.preventDefault();
			choose(people?.find(isHere));
		}}
	>
		<label for="find" class="text-ink-2 mb-1 block text-[13px] font-semibold">Any part of name, number or group</label>
		<Input id="find" bind:value={text} autocomplete="off" maxlength={120} autofocus />
	</form>
	{#if trouble}<p role="alert" class="text-brick">{trouble}</p>{/if}
	<ul class="text-ink max-h-80 space-y-1 overflow-auto text-[15px]" data-testid="found">
		{#each people ?? [] as one (one.sittingId)}
			<li class="border-line border-b py-2 last:border-b-0">
				<button
					type="button"
					class="w-full text-left disabled:cursor-default"
					disabled={!isHere(one)}
					onclick={() => choose(one)}
				>
					{#if !room.isMasked}<strong>{one.name}</strong>{/if} <span class="font-mono text-[14px]">{one.number}</span>
					<span class="text-ink-2 text-[14px]">{one.group}</span>
					<span class="flex items-center gap-1.5 text-[14px] {isHere(one) ? 'text-tide' : 'text-ochre'}">
						<StateGlyph state={one.state} size={13} />{isHere(one)
							? `${STATE_NAMES[one.state]}, in this session`
							: `${STATE_NAMES[one.state]} in ${one.session.name}, ${one.session.room}, ${timeAndDate(one.session.opens, room.head.zone, clock.now)}`}
					</span>
				</button>
			</li>
		{:else}
			{#if people !== null}<li class="text-ink-2 py-2">
					Nobody of that name has a paper here today. Try a part of it, or the number.
				</li>{/if}
		{/each}
	</ul>
</Modal>
