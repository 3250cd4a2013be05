<!-- @component One question, whatever its kind. `em` sizes, so that one setting enlarges all of it. -->
<script lang="ts">
	import { isBlank, type FormQuestion, type Picture } from '$core/paper';
	import type { Given } from '$player/paper.svelte';
	import Choices from './question/Choices.svelte';
	import Matching from './question/Matching.svelte';
	import Ordering from './question/Ordering.svelte';
	import Text from './question/Text.svelte';
	import Written from './question/Written.svelte';

	type Props = {
		question: FormQuestion;
		number: number;
		of: number;
		given: Given;
		picture?: Picture;
		/** The language it is read in; null: the paper's own. */
		language?: string | null;
		hints?: boolean;
		/** Time is up: it can be read, and no longer answered. */
		isClosed?: boolean;
		onchange: (change: Partial<Given>, rests?: boolean) => void;
	};
	let {
		question,
		number,
		of,
		given,
		picture,
		language = null,
		hints = false,
		isClosed = false,
		onchange
	}: Props = $props();

	const wording = $derived(language === null ? undefined : question.inOther?.[language]);
	const textOf = (id: string, own: string) => wording?.texts?.[id] ?? own;
	const filled = $derived(
		given.value !== null && typeof given.value === 'object' && !Array.isArray(given.value) ? given.value : {}
	);
	function fill(gap: string, text: string) {
		const parts = { ...filled, [gap]: text };
		onchange({ value: isBlank(parts) ? null : parts }, true);
	}
	const source = $derived(picture && `data:image/svg+xml;utf8,${encodeURIComponent(picture.svg)}`);
</script>

{#snippet gap(id: string)}
	<input
		class="bg-sheet border-line-strong text-ink mx-1 inline-block w-36 rounded-lg border px-3 py-1 font-sans text-[0.9em]"
		aria-label="Gap {question.gaps!.indexOf(id) + 1} of {question.gaps!.length}"
		autocomplete="off"
		spellcheck="false"
		maxlength="120"
		value={filled[id] ?? ''}
		oninput={(event) => fill(id, event.currentTarget.value)}
	/>
{/snippet}

<fieldset class="group/question min-w-0 text-[1.125em]" data-question={question.id} disabled={isClosed}>
	<legend class="w-full" lang={wording ? language : undefined}>
		<span class="text-ink-2 block text-[0.83em]" lang="en"
			>Question {number} of {of} · {question.points} {question.points === 1 ? 'point' : 'points'}</span
		>
		<span class="mt-2 block font-serif text-[1.22em] leading-snug"
			><Text text={wording?.stem ?? question.stem} gaps={question.gaps} {gap} /></span
		>
	</legend>
	{#if picture}<img
			src={source}
			alt={picture.alt}
			class="border-line mt-5 h-auto w-[min(100%,27em)] rounded-xl border"
		/>{/if}
	{#if question.kind === 'true_false' || question.kind === 'single' || question.kind === 'multiple'}
		<Choices {question} {given} {textOf} {onchange} />
	{:else if question.kind === 'matching'}
		<Matching {question} {given} {textOf} {onchange} />
	{:else if question.kind === 'ordering'}
		<Ordering {question} {given} {textOf} {isClosed} {onchange} />
	{:else if question.kind !== 'fill_in'}
		<Written {question} {given} {onchange} />
	{/if}
	{#if hints && question.hint}
		<details class="bg-mist mt-4 rounded-xl px-4 py-2.5 text-[0.9em]">
			<summary class="cursor-pointer font-semibold">A hint</summary>
			<p class="mt-1"><Text text={question.hint} /></p>
		</details>
	{/if}
	{#if !isBlank(given.value) && !isClosed}
		<button
			type="button"
			class="text-ink-3 hover:text-ink mt-3 text-[14px] underline"
			onclick={() => onchange({ value: null })}>Clear this answer</button
		>
	{/if}
</fieldset>
