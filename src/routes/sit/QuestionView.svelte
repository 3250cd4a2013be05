<!-- @component One question, whatever its kind. `em` sizes, so that one setting enlarges all of it. -->
<script lang="ts">
	import { blocksOf, isBlank, type FormQuestion, type Medium, type Picture } from '$core/paper';
	import type { Handed } from '$player/handed.svelte';
	import type { Given } from '$player/paper.svelte';
	import { spokenText } from '$player/spoken-text';
	import { directionOf } from '$core/session';
	import Blocks from './question/Blocks.svelte';
	import Choices from './question/Choices.svelte';
	import MediaShown from './question/MediaShown.svelte';
	import Matching from './question/Matching.svelte';
	import Ordering from './question/Ordering.svelte';
	import Written from './question/Written.svelte';

	type Props = {
		question: FormQuestion;
		number: number;
		of: number;
		given: Given;
		picture?: Picture;
		/** The paper's own language. */
		ownLanguage?: string;
		/** The language it is read in; null: the paper's own. */
		language?: string | null;
		hints?: boolean;
		/** Whether choices can be struck out. */
		striking?: boolean;
		/** Time is up: it can be read, and no longer answered. */
		isClosed?: boolean;
		/** Where the page finds a file of the paper; null: it has not come yet. */
		addressOf: (file: string) => string | null;
		isMissing?: (file: string) => boolean;
		/** How often a file may still be played: `of` is its question or shared text. */
		leftOf?: (medium: Medium, of: string, place: number) => number | null;
		onplay?: (of: string, place: number) => void;
		/** Where files are handed over; none: it is a preview. */
		handed?: Handed | null;
		/** Which questions share the text before this one, by number; null: it stands with the one before. */
		sharedBy?: { from: number; to: number } | null;
		onchange: (change: Partial<Given>, rests?: boolean) => void;
	};
	let {
		question,
		number,
		of,
		given,
		picture,
		ownLanguage = 'en',
		language = null,
		hints = false,
		striking = true,
		isClosed = false,
		addressOf,
		isMissing = () => false,
		leftOf = (medium) => medium.plays ?? null,
		onplay = () => {},
		handed = null,
		sharedBy = { from: number, to: number },
		onchange
	}: Props = $props();

	const wording = $derived(language === null ? undefined : question.inOther?.[language]);
	/** What a part is read in: nothing of a paper is read aloud in the interface's voice. */
	const tongue = $derived(wording ? language! : ownLanguage);
	const textOf = (id: string, own: string) => wording?.texts?.[id] ?? own;
	const stemText = $derived(wording?.stem ?? question.stem);
	const stem = $derived(blocksOf(stemText, question.gaps));
	/** Lists and tables stand below what names the question: whoever listens hears them by themselves. */
	const firstBelow = $derived(stem.findIndex(({ kind }) => kind !== 'line'));
	const split = $derived(firstBelow < 0 ? stem.length : firstBelow);
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
		autocorrect="off"
		autocapitalize="off"
		spellcheck="false"
		maxlength="120"
		value={filled[id] ?? ''}
		oninput={(event) => fill(id, event.currentTarget.value)}
	/>
{/snippet}

<div class="@container">
	<div class={question.stimulus && sharedBy ? '@4xl:grid @4xl:grid-cols-2 @4xl:items-start @4xl:gap-8' : ''}>
		{#if question.stimulus && sharedBy}
			{@const { id, text, media } = question.stimulus}
			<!-- It scrolls by itself, so keys must reach it. -->
			<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
			<section
				class="border-line bg-mist mb-6 rounded-2xl border px-5 py-4 text-[1.05em] @4xl:sticky @4xl:top-4 @4xl:max-h-[calc(100dvh-15rem)] @4xl:overflow-auto"
				tabindex="0"
				aria-label="For {sharedBy.from === sharedBy.to
					? `question ${number}`
					: `questions ${sharedBy.from} to ${sharedBy.to}`}"
				lang={ownLanguage}
				dir={directionOf(ownLanguage)}
				data-testid="shared-text"
			>
				<p class="text-ink-2 text-[0.83em]" lang="en" dir="ltr">
					{sharedBy.from === sharedBy.to
						? `For question ${number}`
						: `For questions ${sharedBy.from} to ${sharedBy.to}`}
				</p>
				{#if text}<div class="mt-1 font-serif"><Blocks blocks={blocksOf(text)} /></div>{/if}
				{#if media}<MediaShown
						{media}
						{addressOf}
						{isMissing}
						leftOf={(medium, place) => leftOf(medium, id, place)}
						onplay={(place) => onplay(id, place)}
					/>{/if}
			</section>
		{/if}
		<fieldset
			class="group/question min-w-0 text-[1.125em]"
			data-question={question.id}
			disabled={isClosed}
			lang={tongue}
			dir={directionOf(tongue)}
			aria-label={stemText.includes('$')
				? `Question ${number} of ${of}. ${spokenText(stemText, question.gaps)}`
				: undefined}
		>
			<legend class="w-full">
				<h2 class="text-ink-2 block font-sans text-[0.83em] font-normal outline-none" tabindex="-1" lang="en" dir="ltr">
					Question {number} of {of} · {question.points}
					{question.points === 1 ? 'point' : 'points'}{question.isExtra ? ' on top' : ''}{question.isStep
						? ' · belongs to the question before'
						: ''}
				</h2>
				<span class="mt-2 block font-serif text-[1.22em] leading-snug"
					><Blocks blocks={stem.slice(0, split)} {gap} /></span
				>
			</legend>
			{#if split < stem.length}<div class="mt-2 font-serif text-[1.22em] leading-snug">
					<Blocks blocks={stem.slice(split)} {gap} />
				</div>{/if}
			{#if picture}<img
					src={source}
					alt={picture.alt}
					class="border-line mt-5 h-auto w-[min(100%,27em)] rounded-xl border"
				/>{/if}
			{#if question.media}<MediaShown
					media={question.media}
					{addressOf}
					{isMissing}
					leftOf={(medium, place) => leftOf(medium, question.id, place)}
					onplay={(place) => onplay(question.id, place)}
				/>{/if}
			{#if question.kind === 'true_false' || question.kind === 'single' || question.kind === 'multiple'}
				<Choices {question} {given} {textOf} {striking} {onchange} />
			{:else if question.kind === 'matching'}
				<Matching {question} {given} {textOf} {onchange} />
			{:else if question.kind === 'ordering'}
				<Ordering {question} {given} {textOf} {isClosed} {onchange} />
			{:else if question.kind === 'upload'}
				{#await import('./question/Upload.svelte') then { default: Upload }}
					<Upload {question} {given} {handed} {isClosed} {onchange} />
				{:catch}
					<p class="text-ink-2 mt-5" role="status">
						Files can be handed over when the connection is back. Load the page again then.
					</p>
				{/await}
			{:else if question.kind !== 'fill_in'}
				<Written {question} {given} {onchange} />
			{/if}
			{#if hints && question.hint}
				<details class="bg-mist mt-4 rounded-xl px-4 py-2.5 text-[0.9em]">
					<summary class="cursor-pointer font-semibold" lang="en">A hint</summary>
					<div class="mt-1"><Blocks blocks={blocksOf(question.hint)} /></div>
				</details>
			{/if}
			{#if !isBlank(given.value) && !isClosed}
				<button
					type="button"
					class="text-ink-3 hover:text-ink mt-3 text-[14px] underline"
					lang="en"
					onclick={() => onchange({ value: null })}>Clear this answer</button
				>
			{/if}
		</fieldset>
	</div>
</div>
