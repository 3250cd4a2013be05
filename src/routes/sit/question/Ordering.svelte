<!-- @component Puts steps in their order: by dragging, or with the buttons, which also serve the keyboard. -->
<script lang="ts">
	import { tick } from 'svelte';
	import type { FormQuestion } from '$core/paper';
	import { spokenText } from '$player/spoken-text';
	import type { Given } from '$player/paper.svelte';
	import Text from './Text.svelte';

	type Props = {
		question: FormQuestion;
		given: Given;
		textOf: (id: string, own: string) => string;
		isClosed: boolean;
		onchange: (change: Partial<Given>) => void;
	};
	let { question, given, textOf, isClosed, onchange }: Props = $props();

	const order = $derived(Array.isArray(given.value) ? given.value : question.choices!.map((choice) => choice.id));
	const byId = $derived(new Map(question.choices!.map((choice) => [choice.id, choice])));
	let dragged = $state<string | null>(null);
	let told = $state('');

	let list = $state<HTMLElement>();
	/** The step takes its buttons along: the focus stays with it, on the other one at the end. */
	async function move(id: string, by: -1 | 1) {
		const to = order.indexOf(id) + by;
		place(id, to);
		await tick();
		const [up, down] = list?.children[to]?.querySelectorAll('button') ?? [];
		const same = by < 0 ? up : down;
		(same?.disabled ? (by < 0 ? down : up) : same)?.focus();
	}
	function place(id: string, to: number) {
		if (to < 0 || to >= order.length) return;
		const next = order.filter((one) => one !== id);
		next.splice(to, 0, id);
		told = `${spokenText(textOf(id, byId.get(id)!.text))}: now at place ${to + 1} of ${order.length}.`;
		onchange({ value: next });
	}
</script>

<p class="text-ink-2 mt-4 text-[0.83em]" lang="en">
	{given.value === null ? 'Not answered yet: drag the steps, or move them with the arrows.' : 'First at the top.'}
</p>
<ol class="mt-3 space-y-2.5" bind:this={list}>
	{#each order as id, i (id)}
		<li
			class="bg-sheet flex cursor-grab items-center gap-3 rounded-xl border px-4 py-2.5 {dragged === id
				? 'border-tide bg-mist'
				: 'border-line-strong'}"
			draggable={!isClosed}
			ondragstart={(event) => {
				dragged = id;
				event.dataTransfer?.setData('text/plain', id);
			}}
			ondragend={() => (dragged = null)}
			ondragover={(event) => dragged && event.preventDefault()}
			ondrop={(event) => {
				event.preventDefault();
				if (dragged) place(dragged, i);
				dragged = null;
			}}
			data-testid="step-{i}"
		>
			<span class="text-ink-3 w-6 font-mono">{i + 1}</span>
			<span class="min-w-0 flex-1 break-words"><Text text={textOf(id, byId.get(id)!.text)} /></span>
			{#each [[-1, '↑', 'up'], [1, '↓', 'down']] as const as [by, sign, word] (word)}
				<button
					type="button"
					class="border-line-strong hover:bg-paper h-10 w-10 rounded-lg border text-[18px] disabled:opacity-35"
					disabled={i + by < 0 || i + by >= order.length}
					aria-label="Move {word}: {spokenText(textOf(id, byId.get(id)!.text))}"
					onclick={() => void move(id, by)}>{sign}</button
				>
			{/each}
		</li>
	{/each}
</ol>
{#if given.value === null}
	<button
		type="button"
		class="text-tide mt-3 text-[0.83em] font-semibold underline"
		onclick={() => onchange({ value: order })}>Keep this order</button
	>
{/if}
<p class="sr-only" role="status">{told}</p>
