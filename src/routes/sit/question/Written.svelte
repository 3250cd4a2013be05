<!-- @component A number, a line, or a text of some length with its words counted. -->
<script lang="ts">
	import { LONGEST_LINE, LONGEST_TEXT, wordCount, type FormQuestion } from '$core/paper';
	import { readAs } from '$core/quantity';
	import type { Given } from '$player/paper.svelte';

	type Props = { question: FormQuestion; given: Given; onchange: (change: Partial<Given>, rests?: boolean) => void };
	let { question, given, onchange }: Props = $props();

	const text = $derived(typeof given.value === 'string' ? given.value : '');
	const words = $derived(wordCount(text));
	const NEARLY_FULL = 2_000;
	const left = $derived(Math.max(0, LONGEST_TEXT - text.length));
	/** How a number was read, at once and without a line. What stands there as it was read needs no word. */
	const reading = $derived.by(() => {
		if (question.kind !== 'numeric' || text.trim() === '') return '';
		const read = readAs(text);
		if (read.length === 0) return 'This can’t be read as a number yet.';
		return read.length === 1 && read[0] === text.trim() ? '' : `Read as ${read.join(' or ')}.`;
	});
	const field = 'bg-sheet border-line-strong text-ink rounded-xl border px-4 py-3';
</script>

{#if question.kind === 'essay'}
	<label class="mt-5 block">
		<span class="sr-only">Your text</span>
		<textarea
			class="{field} block min-h-72 w-full leading-relaxed"
			rows="10"
			maxlength={LONGEST_TEXT}
			spellcheck="false"
			value={text}
			oninput={(event) => onchange({ value: event.currentTarget.value || null }, true)}></textarea>
	</label>
	<!-- A field that is full takes nothing more and says nothing by itself. -->
	<p class="text-ochre text-[0.83em] font-semibold" lang="en" role="status">
		{left > NEARLY_FULL
			? ''
			: left === 0
				? 'This field is full: nothing more is taken.'
				: `${left > 500 ? Math.ceil(left / 500) * 500 : Math.ceil(left / 100) * 100} more characters fit.`}
	</p>
	<p class="text-ink-2 mt-2 text-[0.83em]" lang="en" data-testid="words">
		{words}
		{words === 1 ? 'word' : 'words'}{question.words
			? `. ${question.words.from} to ${question.words.to} are asked for${words > question.words.to ? ': somewhat long' : ''}.`
			: '.'}
	</p>
{:else}
	<label class="mt-5 flex flex-wrap items-center gap-3">
		<span class="sr-only">Your answer{question.unit ? ` in ${question.unit}` : ''}</span>
		<input
			class="{field} {question.kind === 'numeric' ? 'w-56 font-mono text-[1.2em]' : 'w-full'}"
			autocomplete="off"
			autocorrect="off"
			autocapitalize="off"
			spellcheck="false"
			aria-describedby={question.kind === 'numeric' ? `read-${question.id}` : undefined}
			maxlength={question.kind === 'numeric' ? 60 : LONGEST_LINE}
			value={text}
			oninput={(event) => onchange({ value: event.currentTarget.value || null }, true)}
		/>
		{#if question.unit}<span aria-hidden="true">{question.unit}</span>{/if}
	</label>
	{#if question.kind === 'numeric'}<p
			id="read-{question.id}"
			class="text-ink-2 mt-2 min-h-[1.5em] text-[0.83em]"
			lang="en"
			data-testid="read-as"
		>
			{reading}
		</p>{/if}
{/if}
