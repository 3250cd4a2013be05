<!-- @component A question where it stands, being written. Every change is kept after a moment, without a button. -->
<script lang="ts">
	import { Input, Textarea } from 'flowbite-svelte';
	import { tick, untrack } from 'svelte';
	import {
		gapsOf,
		parametersOf,
		isSame,
		QUESTION_KIND_NAMES,
		withoutStaleKey,
		type Doubt,
		type Question
	} from '$core/paper';
	import Act from '$ui/Act.svelte';
	import Field from '$ui/Field.svelte';
	import CalculatedEdit from './CalculatedEdit.svelte';
	import ChoiceRows from './ChoiceRows.svelte';
	import NumberEntry from './NumberEntry.svelte';
	import QuestionAbout from './QuestionAbout.svelte';

	type Props = {
		question: Question;
		name: string;
		doubts: Doubt[];
		topics: string[];
		onkeep: (before: Question, after: Question) => void;
		onremove?: (question: Question) => void;
		onclose: () => void;
		/** The next of the same kind. */
		onnext?: () => void;
	};
	let { question, name, doubts, topics, onkeep, onremove, onclose, onnext }: Props = $props();

	const REST_MS = 600;
	/** As it was when this editing began, or was last kept: what somebody else has changed since is told by it. */
	let base = untrack(() => question);
	let mine = $state.raw(untrack(() => question));
	let timer: ReturnType<typeof setTimeout> | undefined;

	// What came from elsewhere, as by undo, is shown where nothing of mine waits to be kept.
	$effect(() => {
		const now = question;
		untrack(() => {
			if (timer === undefined && now !== base) base = mine = now;
		});
	});
	function set(change: object) {
		mine = { ...mine, ...change } as Question;
		clearTimeout(timer);
		timer = setTimeout(keep, REST_MS);
	}
	function keep() {
		clearTimeout(timer);
		timer = undefined;
		if (mine === base) return;
		const before = base;
		base = mine;
		onkeep(before, mine);
	}
	/**
	 * Keeps what waits to be kept; whoever takes this editing off the screen calls it before. (Not done when it is taken off:
	 * what is read of the paper then is how it was before the act that did it.) Choices without a word are not left behind.
	 */
	export function leave() {
		if ('choices' in mine && mine.choices.some(({ text }) => text.trim() !== '')) {
			const choices = mine.choices.filter(({ text }) => text.trim() !== '');
			if (choices.length < mine.choices.length) mine = { ...mine, choices };
		}
		const whole = withoutStaleKey(mine);
		if (!isSame(whole, mine)) mine = whole;
		keep();
	}

	function onkeydown(event: KeyboardEvent) {
		if (event.key === 'Escape') onclose();
		else if (event.key === 'Enter' && (event.ctrlKey || event.metaKey) && onnext) onnext();
		else return;
		event.preventDefault();
		event.stopPropagation();
	}
	let box = $state<HTMLElement | null>(null);
	$effect(() => {
		void tick().then(() => box?.querySelector('textarea')?.focus());
	});
	/** Enter in the text goes on to the first choice; Shift and Enter makes a line. */
	function onstemkey(event: KeyboardEvent) {
		if (event.key !== 'Enter' || event.shiftKey || event.ctrlKey || event.metaKey) return;
		const next = box?.querySelector<HTMLInputElement>('ol input[type=text]');
		if (!next) return;
		event.preventDefault();
		next.focus();
	}
</script>

<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<li
	class="bg-sheet border-tide my-2 space-y-3 rounded-xl border-2 px-4 py-3"
	bind:this={box}
	{onkeydown}
	data-testid="question-edit"
	id="question-{question.id}"
>
	<div class="flex items-baseline gap-3">
		<span class="text-ink-3 font-mono text-[13px] font-semibold">{name}</span>
		<span class="text-ink-2 text-[13px]">{QUESTION_KIND_NAMES[mine.kind]}</span>
		<span class="text-ink-3 ml-auto text-[13px]">{onnext ? 'Ctrl Enter: next of this kind · ' : ''}Esc: done</span>
	</div>
	<Field
		id="stem"
		label="Question"
		hint={mine.kind === 'fill_in'
			? 'Write a name in brackets where something is to be filled in: The range is [a] metres.'
			: mine.kind === 'calculated'
				? 'Write a name in braces for each number that is drawn: High water is {high} m.'
				: 'Formulas in TeX between dollar signs: $h = 4.8$. Enter goes on to the choices.'}
	>
		<Textarea
			id="stem"
			rows={2}
			class="w-full font-serif text-[17px]"
			maxlength={20_000}
			value={mine.stem}
			onkeydown={onstemkey}
			oninput={(event) => {
				const stem = event.currentTarget.value;
				if (mine.kind === 'fill_in') set({ stem, gaps: gapsOf(stem, mine.gaps) });
				else if (mine.kind === 'calculated') set({ stem, parameters: parametersOf(stem, mine.parameters) });
				else set({ stem });
			}}
		/>
	</Field>

	{#if mine.kind === 'single'}
		<ChoiceRows
			label="Choice"
			choices={mine.choices}
			right={[mine.answer]}
			one
			onchange={(choices, [answer = '']) => set({ choices, answer })}
		/>
	{:else if mine.kind === 'multiple'}
		<ChoiceRows
			label="Choice"
			choices={mine.choices}
			right={mine.answer}
			onchange={(choices, answer) => set({ choices, answer })}
		/>
	{:else if mine.kind === 'ordering'}
		<ChoiceRows
			label="Step, in the right order"
			choices={mine.choices}
			onchange={(choices) => set({ choices, answer: choices.map(({ id }) => id) })}
		/>
	{:else if mine.kind === 'matching'}
		{@const { items, matches, answer } = mine}
		<div class="grid gap-4 sm:grid-cols-2">
			<ChoiceRows label="Left" choices={items} onchange={(items) => set({ items })} />
			<ChoiceRows label="Right" choices={matches} onchange={(matches) => set({ matches })} />
		</div>
		<ul class="space-y-1.5">
			{#each items as item, i (item.id)}
				<li class="flex items-center gap-2 text-[14.5px]">
					<label for="match-{i}" class="min-w-0 flex-1 truncate">{item.text || `Left ${i + 1}`} goes with</label>
					<select
						id="match-{i}"
						class="bg-sheet border-line-strong w-1/2 rounded-lg border px-2 py-1.5 text-[15px]"
						value={answer[item.id] ?? ''}
						onchange={(event) => set({ answer: { ...answer, [item.id]: event.currentTarget.value } })}
					>
						<option value="">nothing yet</option>
						{#each matches as match, j (match.id)}<option value={match.id}>{match.text || `Right ${j + 1}`}</option
							>{/each}
					</select>
				</li>
			{/each}
		</ul>
	{:else if mine.kind === 'true_false'}
		{@const answer = mine.answer}
		<fieldset class="flex gap-4 text-[15px]">
			<legend class="text-ink-2 mb-1 text-[13px] font-semibold">Right is</legend>
			{#each [true, false] as value (value)}
				<label class="flex items-center gap-1.5"
					><input
						type="radio"
						class="border-line-strong text-tide"
						name="right-{mine.id}"
						checked={answer === value}
						onchange={() => set({ answer: value })}
					/>{value ? 'True' : 'False'}</label
				>
			{/each}
		</fieldset>
	{:else if mine.kind === 'numeric' || mine.kind === 'calculated'}
		{@const { tolerance, unit } = mine}
		{#if mine.kind === 'calculated'}<CalculatedEdit question={mine} onchange={set} />{/if}
		<div class="flex flex-wrap gap-3">
			{#if mine.kind === 'numeric'}<NumberEntry
					id="right"
					label="Right is"
					value={mine.answer}
					onchange={(answer) => set({ answer })}
				/>{/if}
			<Field id="unit" label="Unit" class="w-36">
				<Input id="unit" maxlength={60} bind:value={() => unit, (unit: string) => set({ unit })} />
			</Field>
			<NumberEntry
				id="tolerance"
				label={tolerance.kind === 'relative' ? 'May differ by, %' : 'May differ by'}
				value={tolerance.kind === 'relative' ? Number((tolerance.amount * 100).toFixed(6)) : tolerance.amount}
				onchange={(value) =>
					set({ tolerance: { ...tolerance, amount: Math.abs(tolerance.kind === 'relative' ? value / 100 : value) } })}
			/>
			<label class="mt-6 flex items-center gap-1.5 text-[14px]"
				><input
					type="checkbox"
					class="border-line-strong text-tide rounded"
					checked={tolerance.kind === 'relative'}
					onchange={(event) =>
						set({ tolerance: { kind: event.currentTarget.checked ? 'relative' : 'absolute', amount: 0 } })}
				/>in per cent</label
			>
		</div>
	{:else if mine.kind === 'short'}
		<Field id="accepted" label="Accepted, one on each line" hint="Case, accents and spaces do not matter.">
			<Textarea
				id="accepted"
				rows={3}
				class="w-full"
				value={mine.accepted.join('\n')}
				oninput={(event) => set({ accepted: event.currentTarget.value.split('\n').slice(0, 50) })}
			/>
		</Field>
	{:else if mine.kind === 'fill_in'}
		{@const gaps = mine.gaps}
		{#each gaps as gap, i (gap.id)}
			<Field id="gap-{gap.id}" label="Gap [{gap.id}]: accepted, with ; between" class="max-w-md">
				<Input
					id="gap-{gap.id}"
					bind:value={
						() => gap.accepted.join(';'),
						(text: string) => set({ gaps: gaps.with(i, { ...gap, accepted: text.split(';').slice(0, 50) }) })
					}
				/>
			</Field>
		{/each}
	{:else if mine.kind === 'essay'}
		{@const words = mine.words}
		<div class="flex gap-3">
			{#each [['from', 'Words, from'], ['to', 'to']] as const as [end, label] (end)}
				<NumberEntry
					id="words-{end}"
					{label}
					value={words ? words[end] : null}
					onchange={(value) => set({ words: { from: 0, to: 500, ...words, [end]: Math.max(0, Math.round(value)) } })}
				/>
			{/each}
		</div>
	{/if}

	<div class="flex flex-wrap items-end gap-3">
		<NumberEntry
			id="points"
			label="Points"
			class="w-24"
			value={mine.points}
			onchange={(points) => points >= 0 && points <= 1000 && set({ points })}
		/>
		<Field id="topic" label="Topic" class="w-56">
			<Input
				id="topic"
				list="topics"
				maxlength={120}
				bind:value={() => mine.topic, (topic: string) => set({ topic })}
			/>
		</Field>
		<datalist id="topics"
			>{#each topics as topic (topic)}<option value={topic}></option>{/each}</datalist
		>
		{#if 'partial' in mine}<label class="flex items-center gap-1.5 pb-2 text-[14px]"
				><input
					type="checkbox"
					class="border-line-strong text-tide rounded"
					checked={mine.partial}
					onchange={(event) => set({ partial: event.currentTarget.checked })}
				/>part of the points for part of it</label
			>{/if}
		<Act size="xs" class="ml-auto" onclick={onclose} testid="done">Done</Act>
		{#if onremove}<Act size="xs" tone="danger" onclick={() => onremove(mine)} testid="remove">Remove</Act>{/if}
	</div>
	<QuestionAbout question={mine} onchange={set} />
	{#each doubts as doubt (doubt.code)}
		<p class="{doubt.isGrave ? 'text-brick' : 'text-ochre'} text-[14px]">{doubt.text}</p>
	{/each}
</li>
