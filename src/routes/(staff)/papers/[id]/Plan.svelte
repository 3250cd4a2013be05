<!-- @component The plan of a paper: how many questions of which topic and difficulty; the bank fills what is missing. -->
<script lang="ts">
	import { minutesInWords } from '$core/time';
	import Input from 'flowbite-svelte/Input.svelte';
	import Modal from 'flowbite-svelte/Modal.svelte';
	import { plainText, DIFFICULTIES, keyInWords, type Difficulty, type Paper, type Question } from '$core/paper';
	import { cellInWords, type Filling, type PlanCell } from '$core/plan';
	import Act from '$ui/Act.svelte';
	import LongWork from '$ui/LongWork.svelte';
	import { inWords, send } from '$ui/post';
	import DifficultyMark from '../question/DifficultyMark.svelte';
	import NumberEntry from '../question/NumberEntry.svelte';
	import WantedTable from './WantedTable.svelte';

	type Props = {
		open: boolean;
		id: string;
		paper: Paper;
		part: string;
		/** Every change has reached the server. */
		isKept: boolean;
		onplan: (plan: PlanCell[] | undefined) => void;
		ontake: (questions: Question[]) => void;
	};
	let { open = $bindable(), id, paper, part, isKept, onplan, ontake }: Props = $props();

	let topic = $state('');
	let difficulty = $state<Difficulty | ''>('');
	let count = $state<number | null>(1);
	let minutes = $state<number | null>(null);
	let busy = $state(false);
	let stopping: AbortController | null = null;
	let trouble = $state<string | null>(null);
	let filling = $state.raw<Filling | null>(null);
	const plan = $derived(paper.plan ?? []);
	const topics = $derived(
		[...new Set(paper.parts.flatMap(({ questions }) => questions.map((one) => one.topic)))].filter(Boolean).sort()
	);

	function add() {
		if (count === null || count < 1) return;
		const cell: PlanCell = { topic: topic.trim(), difficulty: difficulty || null, count: Math.round(count) };
		const others = plan.filter((one) => one.topic !== cell.topic || one.difficulty !== cell.difficulty);
		onplan([...others, cell]);
		filling = null;
	}
	function remove(cell: PlanCell) {
		const rest = plan.filter((one) => one !== cell);
		onplan(rest.length > 0 ? rest : undefined);
		filling = null;
	}
	async function fill() {
		if (busy) return;
		busy = true;
		trouble = null;
		const stop = (stopping = new AbortController());
		const answer = await send<Filling>('POST', `/papers/${id}/fill`, { minutes }, { signal: stop.signal });
		busy = false;
		if (stop.signal.aborted) return;
		if (answer.ok) filling = answer.data;
		else trouble = inWords(answer.problem);
	}
	function take() {
		if (!filling) return;
		ontake(filling.questions);
		filling = null;
		open = false;
	}
</script>

<Modal aria-label="Plan of {paper.title}" bind:open title="Plan of {paper.title}" size="lg" class="bg-sheet">
	<div class="text-ink space-y-4" data-testid="plan-of-paper">
		{#if plan.length === 0}<p class="text-ink-2 text-[14.5px]">
				Say how many questions of which topic and difficulty the paper should have. Then see what is missing, and let
				the bank fill it.
			</p>{:else}<WantedTable {paper} />
			<ul class="flex flex-wrap gap-1.5" aria-label="Wanted">
				{#each plan as cell, i (i)}<li
						class="border-line flex items-center gap-1.5 rounded-full border px-3 py-0.5 text-[14px]"
					>
						{cellInWords(cell)}
						<button type="button" aria-label="Remove {cellInWords(cell)}" onclick={() => remove(cell)}>×</button>
					</li>{/each}
			</ul>{/if}
		<form
			class="flex flex-wrap items-end gap-2"
			onsubmit={(event) => {
				event.preventDefault();
				add();
			}}
		>
			<NumberEntry
				id="plan-count"
				label="How many"
				class="w-24"
				value={count}
				onchange={(read) => (count = read >= 1 && read <= 200 ? read : count)}
			/>
			<label class="text-ink-2 text-[13px] font-semibold"
				>Difficulty
				<select
					class="bg-sheet border-line-strong text-ink mt-1 block rounded-lg border py-2 pr-8 pl-2 text-[15px] font-normal"
					bind:value={difficulty}
				>
					<option value="">any</option>
					{#each DIFFICULTIES as one (one)}<option value={one}>{one}</option>{/each}
				</select></label
			>
			<label class="text-ink-2 min-w-48 flex-1 text-[13px] font-semibold"
				>Topic, empty for any
				<Input
					class="mt-1 font-normal"
					list="plan-topics"
					maxlength={120}
					autocomplete="off"
					bind:value={topic}
				/></label
			>
			<datalist id="plan-topics"
				>{#each topics as one (one)}<option value={one}></option>{/each}</datalist
			>
			<Act type="submit" disabled={count === null} testid="add-cell">Add to the plan</Act>
		</form>
		{#if plan.length > 0}
			<div class="border-line flex flex-wrap items-end gap-3 border-t pt-3">
				<NumberEntry
					id="plan-minutes"
					label="Minutes of what is added"
					class="w-52"
					value={minutes}
					onchange={(read) => (minutes = read >= 1 && read <= 600 ? read : null)}
				/>
				<Act tone="main" {busy} disabled={!isKept} onclick={fill} testid="fill">Fill from the bank</Act>
				{#if busy}<LongWork what="Choosing" mostSeconds={25} onstop={() => stopping?.abort()} />{/if}
			</div>
		{/if}
		{#if trouble}<p role="alert" class="bg-brick-ground text-brick rounded-lg px-3 py-2 text-[14px]">{trouble}</p>{/if}
		{#if filling}
			<div class="space-y-2" data-testid="filling">
				{#each filling.missing as { cell, count } (cellInWords(cell))}<p
						class="bg-ochre-ground text-ochre rounded-lg px-3 py-2 text-[14px]"
					>
						The bank lacks {cellInWords({ ...cell, count })}.
					</p>{/each}
				<ol class="max-h-64 space-y-1.5 overflow-auto">
					{#each filling.questions as question (question.id)}<li
							class="border-line flex items-start gap-3 rounded-lg border px-3 py-2 text-[14px]"
						>
							<span class="min-w-0 flex-1"
								><span class="block font-serif text-[15.5px] break-words">{plainText(question.stem)}</span>
								<span class="text-tide font-semibold">{keyInWords(question)}</span>
								<span class="text-ink-3">{question.topic}</span></span
							>
							{#if question.difficulty}<DifficultyMark difficulty={question.difficulty} />{/if}
						</li>{/each}
				</ol>
				{#if filling.questions.length > 0}<p class="flex flex-wrap items-center gap-3 text-[14px]">
						<Act tone="main" onclick={take} testid="take-filling"
							>Add {filling.questions.length} to {part || 'this part'}</Act
						>
						about {minutesInWords(Math.round(filling.minutes))}; seldom used and not known from other papers first{filling.isBest
							? ''
							: '. There may be a better choice: time ran out'}.
					</p>{/if}
			</div>
		{/if}
	</div>
</Modal>
