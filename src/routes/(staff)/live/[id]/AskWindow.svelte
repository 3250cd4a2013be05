<!-- @component Moving everyone's window, with who gains, who works on and who stays finished, told before it is done. -->
<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import { someNames } from '$core/names';
	import type { MoveFate, MoveLine } from '$core/closing';
	import type { LocalWindow } from '$core/time';
	import Ask from '$ui/Ask.svelte';
	import Field from '$ui/Field.svelte';
	import { inWords, send } from '$ui/post';
	import WindowFields from '$ui/WindowFields.svelte';
	import type { LiveRoom } from './room.svelte';

	let { room, onclose }: { room: LiveRoom; onclose: () => void } = $props();
	const path = $derived(`/live/${room.sessionId}/window`);

	let open = $state(true);
	let busy = $state(false);
	let error = $state<string | null>(null);
	let date = $state('');
	let opens = $state('');
	let closes = $state('');
	let lastDate = $state<string | null>(null);
	let revision = $state(0);
	let reason = $state('');
	let told = $state.raw<{ objection: string | null; lines: MoveLine[] } | null>(null);

	$effect(() => {
		if (!open) onclose();
	});
	$effect(() => {
		void send<LocalWindow & { revision: number }>('GET', path).then((answer) => {
			if (!answer.ok) return void (error = inWords(answer.problem));
			({ date, opens, lastDate, revision } = answer.data);
			closes = answer.data.closes ?? '';
		});
	});
	const asked = $derived({ date, opens, closes: closes || null, lastDate: closes ? lastDate : null, revision });
	$effect(() => {
		if (!asked.date) return;
		const body = { ...asked, foresee: true, reason: '' };
		const timer = setTimeout(async () => {
			const answer = await send<{ objection: string | null; lines: MoveLine[] }>('POST', path, body);
			error = answer.ok ? null : inWords(answer.problem);
			told = answer.ok ? answer.data : null;
		}, 250);
		return () => clearTimeout(timer);
	});
	const WORDS: Record<MoveFate, string> = {
		gains: 'at work, end later than before',
		loses: 'at work, would end earlier than before',
		works_on: 'at work: their own time ends them, as before',
		comes: 'not begun: they come at the new times',
		own_window: 'with a window of their own: it does not move',
		stays: 'finished, absent or elsewhere: stays so'
	};
	const FATES = Object.keys(WORDS) as MoveFate[];
	const of = (fate: MoveFate) => told?.lines.filter((line) => line.fate === fate) ?? [];
	const concerned = $derived(of('gains').length + of('loses').length + of('comes').length);
	const names = (lines: MoveLine[]) =>
		someNames(
			lines.map((line) => room.shownName(line.sittingId, line.name)),
			4
		);

	async function confirm() {
		if (busy) return;
		busy = true;
		const answer = await send('POST', path, { ...asked, foresee: false, reason });
		busy = false;
		if (!answer.ok) return void (error = inWords(answer.problem));
		open = false;
	}
</script>

<Ask
	bind:open
	title="Move the window of {room.head.paper}"
	verb="Move it for {concerned}"
	tone={of('loses').length > 0 ? 'danger' : 'main'}
	{busy}
	error={error ?? told?.objection ?? null}
	disabled={told === null || told.objection !== null || reason.trim() === ''}
	onconfirm={confirm}
>
	<div class="grid grid-cols-2 gap-2">
		<WindowFields prefix="w-" bind:date bind:opens bind:closes bind:lastDate />
		<Field id="w-why" label="Why" class="col-span-2"
			><Input id="w-why" bind:value={reason} maxlength={300} autocomplete="off" /></Field
		>
	</div>
	{#if told && told.objection === null}
		<ul class="mt-3 space-y-1.5" data-testid="moved">
			{#each FATES as fate (fate)}
				{#if of(fate).length > 0}
					<li class={fate === 'loses' ? 'text-brick' : ''}>
						<strong>{of(fate).length}</strong>
						{WORDS[fate]}.{#if fate !== 'stays'}<span class="text-ink-2 block text-[14px]">{names(of(fate))}</span>{/if}
					</li>
				{/if}
			{/each}
		</ul>
	{/if}
	<p class="text-ink-3 mt-2 text-[14px]">
		Nobody is let in again who has finished, and no answer is touched. Whoever was told other times by mail can be told
		under Prepare, Mail.
	</p>
</Ask>
