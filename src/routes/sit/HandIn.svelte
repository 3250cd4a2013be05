<script lang="ts">
	import { counted } from '$core/names';
	import { tick, untrack } from 'svelte';
	import type { Line } from '$player/line.svelte';
	import type { Paper } from '$player/paper.svelte';
	import { ask } from '$player/ask';
	import { sendCommand } from '$ui/command-keys';
	import type { Problem } from '$core/problem';
	import Entry from './Entry.svelte';
	import Press from './Press.svelte';
	import Trouble from './Trouble.svelte';

	/** `isTimeUp`: nothing can be answered any more, so that blanks stay blank. */
	type Props = {
		paper: Paper;
		line: Line;
		isTimeUp: boolean;
		mayJump: (index: number) => boolean;
		onclose: () => void;
		onjump: (index: number) => void;
	};
	let { paper, line, isTimeUp, mayJump, onclose, onjump }: Props = $props();

	let dialog: HTMLDialogElement;
	let finishWord = $state('');
	let busy = $state(false);
	let isSure = $state(false);
	let problem = $state.raw<Problem | null>(null);
	const mustAnswer = $derived(line.picture.session.movement.answerAll && !isTimeUp && paper.blanks.length > 0);
	/** With blanks and time left, going on is what most people want who come here. */
	const goesOn = $derived(!isTimeUp && paper.blanks.length > 0);
	$effect(() => {
		dialog.showModal();
		if (untrack(() => goesOn))
			void tick().then(() => dialog.querySelector<HTMLElement>('[data-testid="keep-working"]')?.focus());
	});

	async function handIn() {
		if (busy) return;
		busy = true;
		problem = null;
		if (!(await paper.settle())) {
			busy = false;
			problem = {
				code: 'not_saved_yet',
				message: `${paper.waiting} of your answers are still on this device.`,
				instead: 'They are sent automatically as soon as the connection is back. Then hand in.'
			};
			return;
		}
		const answer = await sendCommand('POST', '/sit/api/hand-in', { finishWord }, { by: ask });
		busy = false;
		if (!answer.ok) problem = answer.problem;
		await line.refresh();
	}
</script>

{#snippet list(title: string, indexes: number[])}
	<p class="mt-4 font-semibold">{title}</p>
	<p class="mt-1.5 grid grid-cols-[repeat(auto-fill,minmax(2.75rem,1fr))] gap-1.5">
		{#each indexes as index (index)}
			<button
				type="button"
				class="bg-sheet border-line-strong h-9 rounded-lg border text-[15px]"
				aria-label="Go to question {index + 1}"
				disabled={!mayJump(index)}
				onclick={() => onjump(index)}>{index + 1}</button
			>
		{/each}
	</p>
{/snippet}

<dialog
	bind:this={dialog}
	{onclose}
	oncancel={(event) => busy && event.preventDefault()}
	class="bg-sheet text-ink border-line m-auto w-[min(560px,92vw)] rounded-2xl border p-7 backdrop:bg-black/40"
	aria-labelledby="hand-in-title"
>
	<h2 id="hand-in-title" class="text-[24px]">Hand in {line.picture.paper.title}?</h2>
	<p class="mt-2 text-[17px]">
		{paper.blanks.length === 0
			? `All ${counted(paper.order.length, 'question')} are answered.`
			: `${paper.order.length - paper.blanks.length} of ${paper.order.length} are answered.`}
		{mustAnswer ? 'All must be answered before handing in.' : 'After handing in you cannot go back.'}
	</p>
	<div data-testid="blanks">
		{#if paper.blanks.length > 0}{@render list(
				`${paper.blanks.length} blank${paper.blanks.some(mayJump) ? ': choose one to go to it' : ''}`,
				paper.blanks
			)}{/if}
		{#if paper.marked.length > 0}{@render list(`${paper.marked.length} marked for later`, paper.marked)}{/if}
	</div>
	<form
		class="mt-5 space-y-4"
		onsubmit={(event) => {
			event.preventDefault();
			if (isSure || paper.blanks.length === 0) void handIn();
			else isSure = true;
		}}
	>
		{#if line.picture.session.asksFinishWord}
			<Entry label="Finish word, from your proctor" mono bind:value={finishWord} />
		{/if}
		<Trouble {problem} />
		<div class="flex flex-wrap gap-3">
			<Press main={goesOn} onclick={() => dialog.close()} disabled={busy} testid="keep-working">Keep working</Press>
			<Press main={!goesOn} type="submit" disabled={busy || mustAnswer} testid="confirm-hand-in">
				{busy
					? 'Handing in…'
					: paper.blanks.length === 0
						? 'Hand in now'
						: isSure
							? `Yes, hand in with ${paper.blanks.length} blank`
							: 'Hand in'}
			</Press>
		</div>
	</form>
</dialog>
