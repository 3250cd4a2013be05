<!-- @component What an author notes about a question: how hard, how long, where it is from; none of it reaches a candidate. -->
<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import Textarea from 'flowbite-svelte/Textarea.svelte';
	import { DIFFICULTIES, minutesNeeded, type Difficulty, type Lesser, type Question, type TryRules } from '$core/paper';
	import Field from '$ui/Field.svelte';
	import NumberEntry from './NumberEntry.svelte';

	type Props = { question: Question; onchange: (change: Partial<Question>) => void };
	let { question, onchange }: Props = $props();

	const usual = $derived(Math.round(60 * minutesNeeded({ ...question, seconds: undefined })));
	const noted = $derived(
		[
			question.difficulty,
			question.seconds,
			question.tags?.length,
			question.source,
			question.note,
			question.hint,
			question.practice,
			question.feedback?.right,
			question.feedback?.wrong,
			question.isExtra,
			question.calculator
		].filter(Boolean).length
	);
	const feedback = (change: { right?: string; wrong?: string }) => {
		const { right, wrong } = { ...question.feedback, ...change };
		onchange({ feedback: right || wrong ? { ...(right && { right }), ...(wrong && { wrong }) } : undefined });
	};
	/** Tries of its own; where one of the two is not said yet, it is what a practice paper begins with. */
	function triesIn(change: Partial<TryRules>) {
		const practice = { tries: 2, costPercent: 50, ...question.practice, ...change };
		const isOne =
			practice.tries >= 1 && practice.tries <= 10 && practice.costPercent >= 0 && practice.costPercent <= 100;
		if (isOne) onchange({ practice });
	}
	const orNone = (text: string) => (text.trim() === '' ? undefined : text);
	const tagsIn = (text: string) => {
		const tags = [...new Set(text.split(',').map((tag) => tag.trim().slice(0, 60)))].filter(Boolean).slice(0, 20);
		return tags.length > 0 ? tags : undefined;
	};
</script>

<details class="text-[14px]">
	<summary class="text-ink-2 font-semibold" data-testid="about-question"
		>Difficulty, time, feedback, notes{noted > 0 ? ` (${noted})` : ''}</summary
	>
	<div class="mt-2 flex flex-wrap items-start gap-3">
		<Field id="difficulty" label="Difficulty" class="w-36">
			<select
				id="difficulty"
				class="bg-sheet border-line-strong w-full rounded-lg border px-2 py-2 text-[15px]"
				value={question.difficulty ?? ''}
				onchange={(event) =>
					onchange({ difficulty: (event.currentTarget.value || undefined) as Difficulty | undefined })}
			>
				<option value="">not known</option>
				{#each DIFFICULTIES as one (one)}<option value={one}>{one}</option>{/each}
			</select>
		</Field>
		<NumberEntry
			id="seconds"
			label="Seconds (usual: {usual})"
			class="w-40"
			value={question.seconds ?? null}
			onchange={(seconds) => seconds >= 5 && seconds <= 10_800 && onchange({ seconds: Math.round(seconds) })}
		/>
		<Field id="tags" label="Tags, with commas" class="w-56">
			<Input
				id="tags"
				value={question.tags?.join(', ') ?? ''}
				onchange={(event) => onchange({ tags: tagsIn((event.target as HTMLInputElement).value) })}
			/>
		</Field>
		<Field id="source" label="Source" class="w-64">
			<Input
				id="source"
				maxlength={300}
				bind:value={() => question.source ?? '', (text: string) => onchange({ source: orNone(text) })}
			/>
		</Field>
		<Field id="hint" label="Hint, for practice" class="w-full">
			<Input
				id="hint"
				maxlength={2000}
				bind:value={() => question.hint ?? '', (text: string) => onchange({ hint: orNone(text) })}
			/>
		</Field>
		<NumberEntry
			id="tries"
			label="Tries in practice"
			class="w-36"
			value={question.practice?.tries ?? null}
			onchange={(tries) => triesIn({ tries: Math.round(tries) })}
		/>
		<NumberEntry
			id="cost"
			label="A wrong try costs, %"
			class="w-40"
			value={question.practice?.costPercent ?? null}
			onchange={(costPercent) => triesIn({ costPercent: Math.round(costPercent) })}
		/>
		{#if question.practice}<button
				type="button"
				class="text-tide mt-8 text-[14px] font-semibold underline"
				onclick={() => onchange({ practice: undefined })}>As the paper has it</button
			>{/if}
		{#each [['right', 'Shown afterwards to those who were right'], ['wrong', 'Shown afterwards to those who were not']] as const as [end, label] (end)}
			<Field id="feedback-{end}" {label} class="w-full">
				<Input
					id="feedback-{end}"
					maxlength={2000}
					bind:value={() => question.feedback?.[end] ?? '', (text: string) => feedback({ [end]: text.trimStart() })}
				/>
			</Field>
		{/each}
		<Field id="calculator" label="Calculator here" class="w-56">
			<select
				id="calculator"
				class="bg-sheet border-line-strong w-full rounded-lg border px-2 py-2 text-[15px]"
				value={question.calculator ?? ''}
				onchange={(event) => onchange({ calculator: (event.currentTarget.value || undefined) as Lesser | undefined })}
			>
				<option value="">as the session has it</option>
				<option value="none">none</option>
				<option value="basic">at most a basic one</option>
			</select>
		</Field>
		<label class="flex items-center gap-1.5"
			><input
				type="checkbox"
				class="border-line-strong text-tide rounded"
				checked={question.isExtra ?? false}
				onchange={(event) => onchange({ isExtra: event.currentTarget.checked || undefined })}
			/>counts on top: nobody needs it for a full score</label
		>
		<Field id="note" label="Notes for authors" class="w-full">
			<Textarea
				id="note"
				rows={2}
				class="w-full"
				maxlength={4000}
				bind:value={() => question.note ?? '', (text: string) => onchange({ note: orNone(text) })}
			/>
		</Field>
	</div>
</details>
