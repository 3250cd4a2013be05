<!-- @component The parts of a paper, one of them chosen; a question that is dropped onto one goes to its end. -->
<script lang="ts">
	import { partLetter, spotOf, unitsOf, type Paper, type Spot } from '$core/paper';
	import { DRAGGED, isDragged } from '../question/dragged';

	type Props = { paper: Paper; at: number; onpart: (index: number) => void; onmove: (id: string, to: Spot) => void };
	let { paper, at, onpart, onmove }: Props = $props();
</script>

<ol class="mt-3 space-y-1.5" data-keyed data-testid="parts">
	{#each paper.parts as one, i (i)}
		<li>
			<button
				type="button"
				class="w-full rounded-xl border px-2.5 py-2 text-left {i === at
					? 'bg-sheet border-line'
					: 'hover:bg-sheet border-transparent'}"
				aria-current={i === at}
				ondragover={(event) => isDragged(event) && event.preventDefault()}
				ondrop={(event) => {
					const id = event.dataTransfer?.getData(DRAGGED);
					if (!id) return;
					event.preventDefault();
					const isHere = spotOf(paper, id)?.part === i;
					const index = one.questions.length - (isHere ? 1 : 0);
					onmove(id, { part: i, index });
				}}
				onclick={() => onpart(i)}
			>
				<span class="font-semibold">{partLetter(i)} · {one.title || 'Untitled part'}</span>
				<span class="text-ink-2 text-[13px]"
					>{one.draw === null || paper.forms
						? one.questions.length
						: `${one.draw} of ${unitsOf(one.questions).length}`}</span
				>
			</button>
		</li>
	{/each}
</ol>
