<!-- @component What is particular to a question's kind: its choices, what is right, how near is near enough. -->
<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import Textarea from 'flowbite-svelte/Textarea.svelte';
	import type { Question } from '$core/paper';
	import Field from '$ui/Field.svelte';
	import CalculatedEdit from './CalculatedEdit.svelte';
	import ChoiceRows from './ChoiceRows.svelte';
	import NumberEntry from './NumberEntry.svelte';

	type Props = { question: Question; onchange: (change: object) => void };
	let { question, onchange }: Props = $props();
</script>

{#if question.kind === 'single'}
	<ChoiceRows
		label="Choice"
		choices={question.choices}
		right={[question.answer]}
		one
		onchange={(choices, [answer = '']) => onchange({ choices, answer })}
	/>
{:else if question.kind === 'multiple'}
	<ChoiceRows
		label="Choice"
		choices={question.choices}
		right={question.answer}
		onchange={(choices, answer) => onchange({ choices, answer })}
	/>
{:else if question.kind === 'ordering'}
	<ChoiceRows
		label="Step, in the right order"
		choices={question.choices}
		onchange={(choices) => onchange({ choices, answer: choices.map(({ id }) => id) })}
	/>
{:else if question.kind === 'matching'}
	{@const { items, matches, answer } = question}
	<div class="grid gap-4 sm:grid-cols-2">
		<ChoiceRows label="Left" choices={items} onchange={(items) => onchange({ items })} />
		<ChoiceRows label="Right" choices={matches} onchange={(matches) => onchange({ matches })} />
	</div>
	<ul class="space-y-1.5">
		{#each items as item, i (item.id)}
			<li class="flex items-center gap-2 text-[14.5px]">
				<label for="match-{i}" class="min-w-0 flex-1 truncate">{item.text || `Left ${i + 1}`} goes with</label>
				<select
					id="match-{i}"
					class="bg-sheet border-line-strong w-1/2 rounded-lg border px-2 py-1.5 text-[15px]"
					value={answer[item.id] ?? ''}
					onchange={(event) => onchange({ answer: { ...answer, [item.id]: event.currentTarget.value } })}
				>
					<option value="">nothing yet</option>
					{#each matches as match, j (match.id)}<option value={match.id}>{match.text || `Right ${j + 1}`}</option
						>{/each}
				</select>
			</li>
		{/each}
	</ul>
{:else if question.kind === 'true_false'}
	{@const answer = question.answer}
	<fieldset class="flex gap-4 text-[15px]">
		<legend class="text-ink-2 mb-1 text-[13px] font-semibold">Right is</legend>
		{#each [true, false] as value (value)}
			<label class="flex items-center gap-1.5"
				><input
					type="radio"
					class="border-line-strong text-tide"
					name="right-{question.id}"
					checked={answer === value}
					onchange={() => onchange({ answer: value })}
				/>{value ? 'True' : 'False'}</label
			>
		{/each}
	</fieldset>
{:else if question.kind === 'numeric' || question.kind === 'calculated'}
	{@const { tolerance, unit } = question}
	{#if question.kind === 'calculated'}<CalculatedEdit {question} {onchange} />{/if}
	<div class="flex flex-wrap gap-3">
		{#if question.kind === 'numeric'}<NumberEntry
				id="right"
				label="Right is"
				value={question.answer}
				onchange={(answer) => onchange({ answer })}
			/>{/if}
		<Field id="unit" label="Unit" class="w-36">
			<Input id="unit" maxlength={60} bind:value={() => unit, (unit: string) => onchange({ unit })} />
		</Field>
		<NumberEntry
			id="tolerance"
			label={tolerance.kind === 'relative' ? 'May differ by, %' : 'May differ by'}
			value={tolerance.kind === 'relative' ? Number((tolerance.amount * 100).toFixed(6)) : tolerance.amount}
			onchange={(value) =>
				onchange({
					tolerance: { ...tolerance, amount: Math.abs(tolerance.kind === 'relative' ? value / 100 : value) }
				})}
		/>
		<label class="mt-6 flex items-center gap-1.5 text-[14px]"
			><input
				type="checkbox"
				class="border-line-strong text-tide rounded"
				checked={tolerance.kind === 'relative'}
				onchange={(event) =>
					onchange({ tolerance: { kind: event.currentTarget.checked ? 'relative' : 'absolute', amount: 0 } })}
			/>in per cent</label
		>
		<NumberEntry
			id="unsimplified"
			label="A fraction not reduced earns, %"
			class="w-56"
			value={question.unsimplified ?? 100}
			onchange={(percent) =>
				percent >= 0 && percent <= 100 && onchange({ unsimplified: percent === 100 ? undefined : Math.round(percent) })}
		/>
	</div>
{:else if question.kind === 'short'}
	<Field
		id="accepted"
		label="Accepted, one on each line"
		hint="Case, accents, and hyphens or spaces between letters do not matter; every other sign does."
	>
		<Textarea
			id="accepted"
			rows={3}
			class="w-full"
			value={question.accepted.join('\n')}
			oninput={(event) => onchange({ accepted: event.currentTarget.value.split('\n').slice(0, 50) })}
		/>
	</Field>
{:else if question.kind === 'fill_in'}
	{@const gaps = question.gaps}
	{#each gaps as gap, i (gap.id)}
		<Field id="gap-{gap.id}" label="Gap [{gap.id}]: accepted, with ; between" class="max-w-md">
			<Input
				id="gap-{gap.id}"
				bind:value={
					() => gap.accepted.join(';'),
					(text: string) => onchange({ gaps: gaps.with(i, { ...gap, accepted: text.split(';').slice(0, 50) }) })
				}
			/>
		</Field>
	{/each}
{:else if question.kind === 'upload'}
	<NumberEntry
		id="most"
		label="Files at most, 1 to 10"
		class="w-48"
		value={question.most}
		onchange={(most) => most >= 1 && most <= 10 && onchange({ most: Math.round(most) })}
	/>
	<p class="text-ink-2 text-[14px]">
		Candidates hand over photos or PDFs of their working, from this device or from a phone by a code. Marked by hand.
	</p>
{:else if question.kind === 'essay'}
	{@const words = question.words}
	<div class="flex gap-3">
		{#each [['from', 'Words, from'], ['to', 'to']] as const as [end, label] (end)}
			<NumberEntry
				id="words-{end}"
				{label}
				value={words ? words[end] : null}
				onchange={(value) => onchange({ words: { from: 0, to: 500, ...words, [end]: Math.max(0, Math.round(value)) } })}
			/>
		{/each}
	</div>
{/if}
