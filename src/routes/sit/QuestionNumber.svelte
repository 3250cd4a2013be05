<!-- @component A question by its number: whether it is answered, marked, and where one is. -->
<script lang="ts">
	import type { Paper } from '$player/paper.svelte';

	type Props = {
		paper: Paper;
		place: number;
		mayJump: (place: number) => boolean;
		onjump: () => void;
		class: string;
		isStop?: boolean;
	};
	let { paper, place, mayJump, onjump, class: size, isStop = true }: Props = $props();

	const id = $derived(paper.order[place]);
	const isAnswered = $derived(paper.isAnswered(id));
	const marked = $derived(paper.of(id).marked);
	const isHere = $derived(place === paper.at);
</script>

<button
	type="button"
	class="relative border {size} {isAnswered
		? 'bg-tide border-tide text-on-tide'
		: 'bg-sheet border-line-strong'} {isHere ? 'outline-ochre-mark outline-[2.5px] outline-offset-1' : ''}"
	aria-label="Question {place + 1}, {isAnswered ? 'answered' : 'blank'}{marked ? ', marked' : ''}"
	aria-current={isHere ? 'true' : undefined}
	data-answered={isAnswered ? '' : undefined}
	tabindex={isStop ? undefined : -1}
	disabled={!mayJump(place)}
	onclick={onjump}
>
	{place + 1}{#if marked}<span class="bg-ochre-mark absolute inset-x-0 bottom-0 h-1.5 rounded-b-[5px]"></span>{/if}
</button>
