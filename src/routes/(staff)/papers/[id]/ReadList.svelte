<!-- @component Questions as they were read from elsewhere, each with what is doubtful about it, to be put right in place; and what belongs to none. -->
<script lang="ts">
	import {
		inKind,
		isMarkedByHand,
		keyInWords,
		plainText,
		QUESTION_KIND_NAMES,
		type Question,
		type QuestionKind,
		type ReadQuestion,
		type ReadText
	} from '$core/paper';
	import Act from '$ui/Act.svelte';
	import { readDecimal } from '$core/quantity';
	import { newId } from '../question/new-id';

	type Props = {
		read: ReadText;
		/** null: it is not taken over; undefined: as it was read. */
		onmend: (read: ReadQuestion, question: Question | null | undefined) => void;
		/** Those that are not taken over. */
		out: ReadQuestion[];
	};
	let { read, onmend, out }: Props = $props();

	/** What text can be made into without writing it anew. */
	const KINDS: QuestionKind[] = ['single', 'multiple', 'true_false', 'short', 'numeric', 'essay', 'upload'];
	const isRight = (question: Question, id: string) =>
		question.kind === 'single' ? question.answer === id : question.kind === 'multiple' && question.answer.includes(id);

	function setPoints(one: ReadQuestion, field: HTMLInputElement) {
		const points = readDecimal(field.value);
		const isGood = points !== undefined && points !== null && points >= 0 && points <= 1000;
		field.setCustomValidity(isGood ? '' : 'Points from 0 to 1000, like 2 or 1.5.');
		if (isGood) onmend(one, { ...one.question, points });
		else field.reportValidity();
	}
	function choose(one: ReadQuestion, id: string) {
		const { question } = one;
		if (question.kind === 'single') onmend(one, { ...question, answer: id });
		else if (question.kind === 'multiple') {
			const has = question.answer.includes(id);
			const answer = has ? question.answer.filter((other) => other !== id) : [...question.answer, id];
			onmend(one, { ...question, answer });
		}
	}
</script>

<ol class="space-y-2">
	{#each read.questions as one, i (one.line)}
		{@const { question, line, doubts } = one}
		<li
			class="border-line rounded-lg border px-3 py-2 text-[14px] {doubts.length > 0 ? 'bg-ochre-ground' : ''}"
			data-testid="read-question"
		>
			{#if one.part !== undefined && one.part !== read.questions[i - 1]?.part}
				<p class="text-ink-2 mb-1 text-[13px] font-semibold">{one.part}</p>
			{/if}
			<div class="flex flex-wrap items-center gap-x-3 gap-y-1">
				<span class="text-ink-3 text-[12.5px]">Line {line}</span>
				<select
					aria-label="Kind of the question in line {line}"
					class="bg-sheet border-line-strong rounded-lg border py-0.5 pr-7 pl-2 text-[13px]"
					value={question.kind}
					onchange={(event) => onmend(one, inKind(question, event.currentTarget.value as QuestionKind, newId))}
				>
					{#each KINDS.includes(question.kind) ? KINDS : [question.kind, ...KINDS] as kind (kind)}
						<option value={kind}>{QUESTION_KIND_NAMES[kind]}</option>
					{/each}
				</select>
				<label class="text-ink-3 flex items-center gap-1.5 text-[12.5px]"
					>Points
					<input
						inputmode="decimal"
						autocomplete="off"
						class="bg-sheet border-line-strong w-14 rounded-lg border px-2 py-0.5 text-[13px]"
						value={question.points}
						onchange={(event) => setPoints(one, event.currentTarget)}
					/></label
				>
				<Act size="xs" class="ml-auto" onclick={() => onmend(one, null)}>Leave out</Act>
			</div>
			<p class="font-serif text-[15.5px] whitespace-pre-line">{plainText(question.stem)}</p>
			{#if question.kind === 'single' || question.kind === 'multiple'}
				<ul class="mt-1">
					{#each question.choices as choice (choice.id)}
						<li>
							<label class="flex min-h-7 items-center gap-2"
								><input
									type={question.kind === 'single' ? 'radio' : 'checkbox'}
									name="right-{line}"
									class="text-tide border-line-strong {question.kind === 'single' ? 'rounded-full' : 'rounded'}"
									checked={isRight(question, choice.id)}
									onchange={() => choose(one, choice.id)}
								/><span class={isRight(question, choice.id) ? 'text-tide font-semibold' : 'text-ink-2'}
									>{plainText(choice.text)}{isRight(question, choice.id) ? ' · right' : ''}</span
								></label
							>
						</li>
					{/each}
				</ul>
			{:else if 'choices' in question}<p class="text-ink-2">
					{question.choices.map((choice) => plainText(choice.text)).join(' · ')}
				</p>{/if}
			{#if question.kind === 'true_false'}
				<label class="mt-1 flex items-center gap-2"
					><input
						type="checkbox"
						class="text-tide border-line-strong rounded"
						checked={question.answer}
						onchange={(event) => onmend(one, { ...question, answer: event.currentTarget.checked })}
					/>It is true</label
				>
			{:else if question.kind === 'short'}
				<label class="text-ink-2 mt-1 flex items-center gap-2 text-[13px] font-semibold"
					>Counts as right
					<input
						class="bg-sheet border-line-strong flex-1 rounded-lg border px-2 py-0.5 text-[14px] font-normal"
						value={question.accepted.join(' | ')}
						placeholder="Several between bars: ebb | ebb tide"
						onchange={(event) =>
							onmend(one, {
								...question,
								accepted: event.currentTarget.value
									.split('|')
									.map((text) => text.trim())
									.filter(Boolean)
							})}
					/></label
				>
			{/if}
			{#if !isMarkedByHand(question) && !['single', 'multiple'].includes(question.kind) && keyInWords(question) !== ''}<p
					class="text-tide font-semibold"
				>
					✓ {plainText(keyInWords(question))}
				</p>{/if}
			{#each doubts as doubt (doubt)}<p class="text-ochre font-semibold">{doubt}</p>{/each}
		</li>
	{/each}
</ol>
{#if out.length > 0}
	<p class="mt-3 text-[14px] font-semibold">Left out by you:</p>
	<ul class="text-ink-2 space-y-1 text-[13.5px]">
		{#each out as one (one.line)}<li class="flex items-center gap-2">
				<span>Line {one.line}: {plainText(one.question.stem).slice(0, 80)}</span>
				<Act size="xs" onclick={() => onmend(one, undefined)}>Take it after all</Act>
			</li>{/each}
	</ul>
{/if}
{#if read.unread.length > 0}
	<p class="mt-3 text-[14px] font-semibold">Belongs to no question, and is left out:</p>
	<ul class="text-ink-2 text-[13.5px]">
		{#each read.unread as { line, text: words }, i (i)}<li>{line > 0 ? `Line ${line}: ` : ''}{words}</li>{/each}
	</ul>
{/if}
