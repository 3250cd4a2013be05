<!-- @component What stays at the bottom of a paper: back, mark, every question, on, and handing in. -->
<script lang="ts">
	import type { Page } from '$core/session';
	import type { Paper } from '$player/paper.svelte';
	import PaperMap from './PaperMap.svelte';
	import Press from './Press.svelte';
	import QuestionNumber from './QuestionNumber.svelte';

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
		/** Counts are hidden. */
		isCalm: boolean;
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
		isCalm,
		onturn,
		onjump,
		onmark,
		onhandin
	}: Props = $props();
	const SMALL = 'whitespace-nowrap max-sm:px-3 max-sm:py-2 max-sm:text-[15px]';
	let isMapOpen = $state(false);
	let strip = $state<HTMLElement>();
	// Where one is stays in the middle of the line.
	$effect(() => {
		const number = strip?.children[paper.at] as HTMLElement | undefined;
		if (strip && number)
			strip.scrollLeft = number.offsetLeft - strip.offsetLeft - (strip.clientWidth - number.clientWidth) / 2;
	});
	/** The numbers are one stop; arrows go among them. */
	let walked = $state<number | null>(null);
	$effect(() => {
		void paper.at;
		walked = null;
	});
	function walk(event: KeyboardEvent) {
		const last = paper.order.length - 1;
		const from = walked ?? paper.at;
		const to = { ArrowRight: from + 1, ArrowLeft: from - 1, Home: 0, End: last }[event.key];
		if (to === undefined || event.ctrlKey || event.altKey || event.metaKey) return;
		event.preventDefault();
		walked = Math.min(last, Math.max(0, to));
		(strip?.children[walked] as HTMLElement | undefined)?.focus();
	}
	const here = $derived(paper.order[paper.at]);
	const next = $derived.by(() => {
		if (isClosed) return { isOpen: !isForwardOnly, text: 'Next →' };
		if (!mayGoOn) return { isOpen: false, text: 'Answer to continue' };
		return waitsForLine ? { isOpen: false, text: 'Waiting for the connection' } : { isOpen: true, text: 'Next →' };
	});
</script>

<footer
	class="bg-sheet border-line sticky bottom-0 [@media(max-height:420px)]:static flex items-center gap-3 border-t px-6 py-3 max-sm:flex-wrap max-sm:gap-1.5 max-sm:px-2 max-sm:py-1.5"
>
	<!-- The next page comes first for the keyboard, so that it is near the answers; it stands where it is looked for. -->
	{#if !page.isLast}
		<Press main={!isClosed} onclick={() => onturn(1)} disabled={!next.isOpen} class="{SMALL} order-2" testid="next"
			>{next.text}</Press
		>
	{/if}
	{#if page.perPage < paper.order.length && !isForwardOnly}
		<Press onclick={() => onturn(-1)} disabled={page.isFirst} class={SMALL}>← Back</Press>
	{/if}
	{#if marks}
		<Press disabled={isClosed} pressed={paper.of(here).marked} onclick={() => onmark(here)} class={SMALL} testid="mark"
			>{paper.of(here).marked ? 'Marked' : 'Mark'}</Press
		>
	{/if}
	<!-- One line of numbers around where one is, however long the paper; all of them behind a press. -->
	<!-- svelte-ignore a11y_no_noninteractive_element_interactions (the numbers in it are buttons: arrows go among them) -->
	<nav
		bind:this={strip}
		class="flex min-w-0 flex-1 gap-1 overflow-x-auto px-1 py-1 max-sm:hidden"
		style="scrollbar-width:none"
		aria-label="Questions"
		onkeydown={walk}
	>
		{#each paper.order as id, place (id)}
			<QuestionNumber
				{paper}
				{place}
				{mayJump}
				onjump={() => onjump(place)}
				isStop={place === (walked ?? paper.at)}
				class="h-7 w-7 shrink-0 rounded-md text-[12px] first:ml-auto last:mr-auto"
			/>
		{/each}
	</nav>
	<button
		type="button"
		class="hover:bg-paper rounded-xl px-3 py-2 text-left text-[14px] leading-tight whitespace-nowrap max-sm:flex-1 max-sm:text-center"
		onclick={() => (isMapOpen = true)}
		data-testid="open-map"
	>
		{#if isCalm}<span class="block font-semibold">All questions</span>{:else}
			<span class="block font-semibold">{paper.at + 1} of {paper.order.length}</span>
			<span class="text-ink-2 block"
				>{paper.blanks.length} blank{paper.marked.length > 0 ? `, ${paper.marked.length} marked` : ''}</span
			>
		{/if}
	</button>
	<Press
		main={page.isLast || isClosed}
		onclick={onhandin}
		class="{SMALL} order-3 {page.isLast || isClosed ? '' : 'max-sm:hidden'}"
		testid="hand-in">Hand in</Press
	>
</footer>
{#if isMapOpen}<PaperMap
		{paper}
		{mayJump}
		{onjump}
		onclose={() => (isMapOpen = false)}
		onhandin={page.isLast ? null : onhandin}
	/>{/if}
