<!-- @component What stays at the bottom of a paper: back, mark, every question, on, and handing in. -->
<script lang="ts">
	import type { Page } from '$core/session';
	import type { Paper } from '$player/paper.svelte';
	import Press from './Press.svelte';

	type Props = {
		paper: Paper;
		page: Page;
		/** Whether the question that is shown can be marked for later. */
		marks: boolean;
		isForwardOnly: boolean;
		/** The next page comes when the line is back. */
		waitsForLine: boolean;
		isClosed: boolean;
		mayGoOn: boolean;
		mayJump: (index: number) => boolean;
		onturn: (by: 1 | -1) => void;
		onjump: (index: number) => void;
		onmark: (questionId: string) => void;
		onhandin: () => void;
	};
	let {
		paper,
		page,
		marks,
		isForwardOnly,
		waitsForLine,
		isClosed,
		mayGoOn,
		mayJump,
		onturn,
		onjump,
		onmark,
		onhandin
	}: Props = $props();
	const here = $derived(paper.order[paper.at]);
	const next = $derived.by(() => {
		if (isClosed) return { isOpen: !isForwardOnly, text: 'Next →' };
		if (!mayGoOn) return { isOpen: false, text: 'Answer to go on' };
		return waitsForLine ? { isOpen: false, text: 'Waiting for the connection' } : { isOpen: true, text: 'Next →' };
	});
</script>

<footer class="bg-sheet border-line sticky bottom-0 flex flex-wrap items-center gap-3 border-t px-6 py-3 max-sm:px-4">
	{#if page.perPage < paper.order.length && !isForwardOnly}
		<Press onclick={() => onturn(-1)} disabled={page.isFirst}>← Back</Press>
	{/if}
	{#if marks}
		<Press disabled={isClosed} pressed={paper.of(here).marked} onclick={() => onmark(here)} testid="mark"
			>{paper.of(here).marked ? 'Marked' : 'Mark'}</Press
		>
	{/if}
	<nav
		class="flex min-w-0 flex-1 flex-wrap justify-center gap-1 max-sm:order-last max-sm:basis-full"
		aria-label="Questions"
	>
		{#each paper.order as id, i (id)}
			{@const { marked } = paper.of(id)}
			{@const isAnswered = paper.isAnswered(id)}
			<button
				type="button"
				class="relative h-7 w-7 rounded-md border text-[12px] {isAnswered
					? 'bg-tide border-tide text-on-tide'
					: 'bg-sheet border-line-strong'} {i === paper.at
					? 'outline-ochre-mark outline-[2.5px] outline-offset-1'
					: ''}"
				aria-label="Question {i + 1}, {isAnswered ? 'answered' : 'blank'}{marked ? ', marked' : ''}"
				aria-current={i === paper.at ? 'true' : undefined}
				disabled={!mayJump(i)}
				onclick={() => onjump(i)}
			>
				{i + 1}{#if marked}<span class="bg-ochre-mark absolute inset-x-0 bottom-0 h-1.5 rounded-b-[5px]"></span>{/if}
			</button>
		{/each}
	</nav>
	{#if !page.isLast}
		<Press main={!isClosed} onclick={() => onturn(1)} disabled={!next.isOpen} testid="next">{next.text}</Press>
	{/if}
	<Press main={page.isLast || isClosed} onclick={onhandin} testid="hand-in">Hand in</Press>
</footer>
