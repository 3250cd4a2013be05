<!-- @component What a calculated question is drawn from: its numbers, its conditions, its formula; and how it comes out. -->
<script lang="ts">
	import { readDecimal } from '$core/quantity';
	import Input from 'flowbite-svelte/Input.svelte';
	import Textarea from 'flowbite-svelte/Textarea.svelte';
	import { calculatedFault, examplesOf, steadyPick, type CalculatedQuestion, type Parameter } from '$core/paper';
	import { FORMULA_FUNCTIONS } from '$core/formula';
	import Field from '$ui/Field.svelte';
	import NumberEntry from './NumberEntry.svelte';

	type Props = { question: CalculatedQuestion; onchange: (change: Partial<CalculatedQuestion>) => void };
	let { question, onchange }: Props = $props();

	const fault = $derived(calculatedFault(question));
	/** The same examples as long as the question is the same. */
	const shown = $derived(fault ? null : examplesOf(question, steadyPick()));
	const figure = (value: number) => String(Number(value.toPrecision(8)));

	function change(index: number, parameter: Parameter) {
		onchange({ parameters: question.parameters.with(index, parameter) });
	}
	/** What can't be read of a list, by parameter: nothing of it is kept, so that no value is lost without a word. */
	let unread = $state<Record<string, string>>({});
	function values(i: number, name: string, text: string) {
		const typed = text.split(/[;\s]+/).filter(Boolean);
		const wrong = typed.find((one) => readDecimal(one) === undefined);
		unread = { ...unread, [name]: wrong ?? '' };
		if (wrong === undefined) change(i, { name, values: typed.map((one) => readDecimal(one)!).slice(0, 200) });
	}
</script>

<div class="space-y-3" data-testid="calculated">
	{#each question.parameters as parameter, i (parameter.name)}
		<fieldset class="flex flex-wrap items-end gap-2">
			<legend class="text-ink-2 font-mono text-[14px] font-semibold">{`{${parameter.name}}`}</legend>
			{#if 'values' in parameter}
				<Field
					id="values-{parameter.name}"
					label="One of, with spaces between"
					class="min-w-56 flex-1"
					error={unread[parameter.name] ? `“${unread[parameter.name]}” is no number: the list is not kept.` : undefined}
				>
					<Input
						id="values-{parameter.name}"
						value={parameter.values.join(' ')}
						onchange={(event) => values(i, parameter.name, (event.target as HTMLInputElement).value)}
					/>
				</Field>
			{:else}
				{#each [['from', 'From'], ['to', 'to'], ['step', 'by steps of']] as const as [end, label] (end)}
					<NumberEntry
						id="{end}-{parameter.name}"
						{label}
						class="w-24"
						value={parameter[end]}
						onchange={(value) => change(i, { ...parameter, [end]: value })}
					/>
				{/each}
			{/if}
			<button
				type="button"
				class="text-tide pb-2 text-[13px] underline"
				onclick={() =>
					change(
						i,
						'values' in parameter
							? { name: parameter.name, from: 1, to: 10, step: 1 }
							: { name: parameter.name, values: [parameter.from, parameter.to] }
					)}>{'values' in parameter ? 'a range instead' : 'a list instead'}</button
			>
		</fieldset>
	{/each}
	<Field id="formula" label="Formula" hint="Numbers, + - * / ^, and {FORMULA_FUNCTIONS.join(', ')}; angles in degrees.">
		<Input
			id="formula"
			class="font-mono"
			maxlength={400}
			autocomplete="off"
			spellcheck="false"
			bind:value={() => question.formula, (formula: string) => onchange({ formula })}
		/>
	</Field>
	<Field id="conditions" label="Conditions, one on each line" hint="Numbers are drawn until all hold: high > low + 1.">
		<Textarea
			id="conditions"
			rows={1}
			class="w-full font-mono"
			value={question.conditions.join('\n')}
			oninput={(event) =>
				onchange({
					conditions: event.currentTarget.value
						.split('\n')
						.filter((line) => line.trim() !== '')
						.slice(0, 20)
				})}
		/>
	</Field>
	{#if shown}
		<div class="text-[14px]" data-testid="examples">
			<p class="text-ink-2 font-semibold">
				{#if shown.least && shown.most}Answers from {figure(shown.least.answer)} to {figure(shown.most.answer)}
					{question.unit}. Twenty examples:{/if}
			</p>
			<ul class="text-ink-2 mt-1 grid max-h-32 gap-x-4 overflow-auto font-mono text-[13px] sm:grid-cols-2">
				{#each shown.examples as { drawn, answer }, i (i)}<li>
						{Object.entries(drawn)
							.map(([name, value]) => `${name} ${value}`)
							.join(', ')} → <strong>{figure(answer)}</strong>
					</li>{/each}
			</ul>
		</div>
	{/if}
</div>
