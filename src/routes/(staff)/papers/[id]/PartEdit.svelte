<!-- @component One part of a paper that is being written: its title, what is dealt from it, and its questions. -->
<script lang="ts">
	import {
		aboutPart,
		askForWorking,
		leadOf,
		nameInPaper,
		partLetter,
		putIn,
		questionsOf,
		type Doubt,
		type PaperForm,
		type PartAbout,
		type Question,
		type QuestionKind
	} from '$core/paper';
	import Act from '$ui/Act.svelte';
	import FormLetters from '../question/FormLetters.svelte';
	import { newId } from '../question/new-id';
	import QuestionEdit from '../question/QuestionEdit.svelte';
	import QuestionRead from '../question/QuestionRead.svelte';
	import type { BesideBank } from './beside-bank.svelte';
	import type { DraftPaper } from './draft.svelte';
	import PoolBox from './PoolBox.svelte';

	type Props = {
		draft: DraftPaper;
		/** Which part, from 0. */
		at: number;
		/** Of the whole paper. */
		doubts: Doubt[];
		/** Questions of which the bank has a newer one. */
		newer: BesideBank['newer'];
		/** The question that is written now. */
		editing: string | null;
		onadd(kind: QuestionKind): void;
		onmoved(to: number): void;
		onforms(forms: PaperForm[]): void;
	};
	let { draft, at, doubts, newer, editing = $bindable(), onadd, onmoved, onforms }: Props = $props();

	const paper = $derived(draft.paper);
	const here = $derived(paper.parts[at]);
	const topics = $derived(
		[...new Set(paper.parts.flatMap(({ questions }) => questions.map(({ topic }) => topic)))].filter(Boolean).sort()
	);
	const languages = $derived([...new Set(questionsOf(paper).flatMap(({ inOther }) => Object.keys(inOther ?? {})))]);
	let editor = $state<{ leave(): void } | null>(null);

	/** Keeps what is being written. */
	export function leave() {
		editor?.leave();
	}
	function write(id: string | null) {
		leave();
		editing = id;
	}
	/** What a question can go with: the one before it, or what that one goes with; nothing if others go with it. */
	function leadFor(i: number): { id: string; name: string } | undefined {
		const [before, { id }] = [here.questions[i - 1], here.questions[i]];
		if (!before || here.questions.some(({ follows }) => follows === id)) return undefined;
		const lead = before.follows ?? before.id;
		return { id: lead, name: nameInPaper(paper, lead) };
	}
	function askWorking({ id }: Question, i: number) {
		leave();
		const asks = askForWorking(draft.question(id)!, newId);
		draft.change({ kind: 'question', before: null, after: asks, at: { part: at, index: i + 1 } });
		editing = asks.id;
	}
	function changePart(change: Partial<PartAbout>) {
		const before = aboutPart(here);
		draft.change({ kind: 'part', index: at, before, after: aboutPart({ ...before, ...change }) });
	}
	function movePart(step: 1 | -1) {
		write(null);
		if (!paper.parts[at + step]) return;
		draft.change({ kind: 'move_part', title: here.title, from: at, to: at + step });
		onmoved(at + step);
	}
</script>

<div class="mb-3 flex flex-wrap items-center gap-2">
	<span class="font-serif text-[26px] font-semibold">{partLetter(at)} ·</span>
	<input
		class="hover:border-line-strong focus:border-line-strong min-w-0 flex-1 rounded-lg border border-transparent bg-transparent px-1.5 py-0.5 font-serif text-[26px] font-semibold"
		value={here.title}
		maxlength="200"
		placeholder="Untitled part"
		aria-label="Title of part {partLetter(at)}"
		onchange={(event) => changePart({ title: event.currentTarget.value.trim() })}
	/>
	<Act size="xs" disabled={at === 0} onclick={() => movePart(-1)} title="Earlier">↑</Act>
	<Act size="xs" disabled={at === paper.parts.length - 1} onclick={() => movePart(1)} title="Later">↓</Act>
	<Act
		size="xs"
		onclick={() => draft.change({ kind: 'remove_part', index: at, before: aboutPart(here) })}
		testid="remove-part">Remove part</Act
	>
</div>
{#if !paper.forms}<PoolBox part={here} onchange={changePart} />{/if}
<ol data-testid="questions">
	{#each here.questions as question, i (question.id)}
		{@const own = doubts.filter(({ questionIds }) => questionIds.length === 1 && questionIds[0] === question.id)}
		{@const shared = here.questions[i - 1]?.stimulus}
		{@const lead = leadOf(here.questions, question)}
		{#if editing === question.id}
			<QuestionEdit
				before={shared}
				onshared={(before, after) => draft.change({ kind: 'stimulus', before, after })}
				bind:this={editor}
				{question}
				name={nameInPaper(paper, question.id)}
				doubts={own}
				{topics}
				{languages}
				onkeep={(before, after) => draft.change({ kind: 'question', before, after, at: { part: at, index: i } })}
				onremove={(before) => {
					write(null);
					draft.change({ kind: 'remove_question', before });
				}}
				onclose={() => write(null)}
				onnext={() => onadd(question.kind)}
				lead={leadFor(i)}
				onworking={() => askWorking(question, i)}
			/>
		{:else}
			<QuestionRead
				{question}
				name={nameInPaper(paper, question.id)}
				picture={question.picture ? paper.pictures?.[question.picture] : undefined}
				doubts={own}
				isChosen={own.some(({ isGrave }) => isGrave)}
				newer={newer[question.id]}
				onmove={(id) => draft.change({ kind: 'move_question', id, to: { part: at, index: i } })}
				showsShared={shared?.id !== question.stimulus?.id}
				onedit={() => write(question.id)}
				onfix={(after) => draft.change({ kind: 'question', before: question, after, at: { part: at, index: i } })}
				lead={lead ? nameInPaper(paper, lead.id) : undefined}
			>
				{#if paper.forms && !lead}<FormLetters
						forms={paper.forms}
						id={question.id}
						onform={(name) => onforms(putIn(paper.forms!, name, question.id))}
					/>{/if}
			</QuestionRead>
		{/if}
	{:else}
		<li class="text-ink-2 py-6 text-[15px]">
			No question in this part yet. Press Q to write one, or T to add text you already have.
		</li>
	{/each}
</ol>
