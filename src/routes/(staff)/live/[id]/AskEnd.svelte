<script lang="ts">
	import type { EndingFate, EndingLine } from '$core/closing';
	import Ask from '$ui/Ask.svelte';
	import Choose from '$ui/Choose.svelte';
	import { inWords, send } from '$ui/post';
	import StateGlyph from '$ui/StateGlyph.svelte';
	import type { LiveRoom } from './room.svelte';

	let { room, onclose }: { room: LiveRoom; onclose: () => void } = $props();

	let open = $state(true);
	let busy = $state(false);
	let error = $state<string | null>(null);
	let lines = $state<EndingLine[] | null>(null);
	$effect(() => {
		if (!open) onclose();
	});
	$effect(() => {
		void send<EndingLine[]>('GET', `/live/${room.sessionId}/ending`).then((answer) => {
			if (answer.ok) lines = answer.data;
			else error = inWords(answer.problem);
		});
	});
	/** Those at work: whether they continue another time, or what they have is taken in. */
	let collects = $state<'carry' | 'collect'>('carry');
	const atWork = $derived(lines?.filter((line) => line.isAtWork && line.fate === 'carried_over') ?? []);
	const isCollected = (line: EndingLine) => collects === 'collect' && atWork.includes(line);
	const WORDS: { fate: EndingFate | 'collected'; title: string; then: string }[] = [
		{
			fate: 'collected',
			title: 'collected',
			then: 'what they have so far is handed in and marked (number of answers in brackets); they don’t continue'
		},
		{
			fate: 'carried_over',
			title: 'carried over',
			then: 'they continue another time, with all their answers (number in brackets) and the time they have left'
		},
		{ fate: 'absent', title: 'marked absent', then: 'they never came in, and are owed a make-up' },
		{ fate: 'time_up', title: 'time up', then: 'their time is over; what they answered is handed in' },
		{ fate: 'own_window', title: 'own window', then: 'they carry on; it closes automatically' },
		{ fate: 'stays', title: 'finished already', then: 'nothing changes for them' }
	];
	const ending = $derived(lines?.filter((line) => !['stays', 'own_window'].includes(line.fate)).length ?? 0);
	const of = (fate: EndingFate | 'collected') =>
		lines?.filter((line) => (isCollected(line) ? fate === 'collected' : line.fate === fate)) ?? [];

	async function confirm() {
		if (busy) return;
		busy = true;
		error = await room.session('end', { collects: collects === 'collect' });
		busy = false;
		if (error === null) open = false;
	}
</script>

<Ask
	bind:open
	title="End {room.head.paper} in the {room.head.room}"
	verb="End for {ending} {ending === 1 ? 'candidate' : 'candidates'}"
	tone="danger"
	{busy}
	{error}
	disabled={lines === null}
	onconfirm={confirm}
>
	{#if lines === null}
		<p class="text-ink-3">Checking everyone’s state…</p>
	{:else}
		{#if atWork.length > 0}
			<div class="mb-4 flex flex-wrap items-center gap-3">
				<span class="text-[15px] font-semibold">{atWork.length} still at work:</span>
				<Choose
					name="collects"
					label="What becomes of those still at work"
					bind:value={collects}
					options={[
						{ value: 'carry', text: 'carry over' },
						{ value: 'collect', text: 'collect what they have' }
					]}
				/>
			</div>
		{/if}
		<ul class="space-y-3">
			{#each WORDS as { fate, title, then } (fate)}
				{#if of(fate).length > 0}
					<li class="flex gap-2.5">
						<StateGlyph
							state={fate === 'stays' || fate === 'collected' ? 'handed_in' : fate === 'own_window' ? 'working' : fate}
						/>
						<div>
							<p><strong>{of(fate).length} {title}</strong>: {then}.</p>
							{#if fate !== 'stays'}<p class="text-ink-2 text-[14px]">
									{of(fate)
										.map((line) => {
											const name = room.shownName(line.sittingId, line.name);
											return line.answered > 0 ? `${name} (${line.answered})` : name;
										})
										.join(', ')}
								</p>{/if}
						</div>
					</li>
				{/if}
			{/each}
		</ul>
		<p class="text-ink-3 mt-4 text-[14px]">
			{of('own_window').length > 0
				? 'The door code opens only for those with a window of their own, until it closes.'
				: 'The door code stops working.'} An ended session cannot be restarted. No answers are lost.
		</p>
	{/if}
</Ask>
