<!-- @component A paper that is being written: its parts, its questions, and what each candidate gets. -->
<script lang="ts">
	import { onMount, tick, untrack } from 'svelte';
	import { beforeNavigate, invalidateAll } from '$app/navigation';
	import {
		aboutOf,
		aboutPart,
		askForWorking,
		doubtsOfPaper,
		eachGets,
		leadOf,
		nameInPaper,
		partLetter,
		putIn,
		QUESTION_KIND_NAMES,
		QUESTION_KINDS,
		questionsOf,
		spotOf,
		type PaperEdit,
		type PartAbout,
		type Question,
		type QuestionKind
	} from '$core/paper';
	import { clockTime } from '$core/time';
	import Act from '$ui/Act.svelte';
	import Ask from '$ui/Ask.svelte';
	import { inWords, send } from '$ui/post';
	import Sentence from '$ui/Sentence.svelte';
	import { isTypedInto } from '$ui/typed-into';
	import AboutPaper from './AboutPaper.svelte';
	import Changes from './Changes.svelte';
	import { DraftPaper } from './draft.svelte';
	import PaperSide from './PaperSide.svelte';
	import { BesideBank } from './beside-bank.svelte';
	import Forms from './Forms.svelte';
	import FromBank from './FromBank.svelte';
	import PartsList from './PartsList.svelte';
	import Paste from './Paste.svelte';
	import Plan from './Plan.svelte';
	import PoolBox from './PoolBox.svelte';
	import Preview from './Preview.svelte';
	import QuestionEdit from '../question/QuestionEdit.svelte';
	import FormLetters from '../question/FormLetters.svelte';
	import { newId } from '../question/new-id';
	import QuestionRead from '../question/QuestionRead.svelte';
	import TwoAtOnce from './TwoAtOnce.svelte';
	import type { PageData } from './$types';

	let { data }: { data: PageData } = $props();
	const draft = untrack(() => new DraftPaper(data.draft.id, { ...data.draft, content: data.draft.content }));
	onMount(() => draft.watch());
	const bank = untrack(() => new BesideBank(draft));
	onMount(() => void bank.look());
	$effect(() => {
		if (draft.revision >= 0 && draft.waiting === 0) untrack(() => bank.lookSoon());
	});

	let part = $state(0);
	let editing = $state<string | null>(null);
	let editor = $state<{ leave(): void } | null>(null);
	/** Which question is written from now on; what was written of another is kept before. */
	function write(id: string | null) {
		editor?.leave();
		editing = id;
	}
	beforeNavigate(() => editor?.leave());
	let kind = $state<QuestionKind>('single');
	let isPasting = $state(false);
	let isTaking = $state(false);
	let isPreviewed = $state(false);
	let isPair = $state(false);
	let isFreezing = $state(false);
	let isCompared = $state(false);
	let isAbout = $state(false);
	let isPlanned = $state(false);
	let isDivided = $state(false);
	let frozen = $state<{ version: number } | null>(null);
	let trouble = $state<string | null>(null);
	let busy = $state(false);

	const paper = $derived(draft.paper);
	const at = $derived(Math.min(part, paper.parts.length - 1));
	const here = $derived(paper.parts[at]);
	const doubts = $derived(doubtsOfPaper(paper));
	const gets = $derived(eachGets(paper));
	const topics = $derived(
		[...new Set(paper.parts.flatMap(({ questions }) => questions.map(({ topic }) => topic)))].filter(Boolean).sort()
	);
	const languages = $derived([...new Set(questionsOf(paper).flatMap(({ inOther }) => Object.keys(inOther ?? {})))]);
	const count = $derived(paper.parts.reduce((sum, { questions }) => sum + questions.length, 0));

	function addQuestion(of: QuestionKind = kind) {
		editor?.leave();
		kind = of;
		const after = editing === null ? null : spotOf(paper, editing);
		const index = after && after.part === at ? after.index + 1 : (here?.questions.length ?? 0);
		if (paper.parts.length === 0) addPart();
		editing = draft.add(of, { part: Math.max(0, at), index });
	}
	/** What a question can go with: the one before it, or what that one goes with; nothing if others go with it. */
	function leadFor(i: number): { id: string; name: string } | undefined {
		const [before, { id }] = [here.questions[i - 1], here.questions[i]];
		if (!before || here.questions.some(({ follows }) => follows === id)) return undefined;
		const lead = before.follows ?? before.id;
		return { id: lead, name: nameInPaper(paper, lead) };
	}
	function askWorking({ id }: Question, i: number) {
		editor?.leave();
		const asks = askForWorking(draft.question(id)!, newId);
		draft.change({ kind: 'question', before: null, after: asks, at: { part: at, index: i + 1 } });
		editing = asks.id;
	}
	function undo() {
		editor?.leave();
		draft.undo();
	}
	function addPart() {
		write(null);
		draft.change({ kind: 'add_part', index: paper.parts.length, part: { title: '', questions: [], draw: null } });
		part = draft.paper.parts.length - 1;
	}
	function changePart(change: Partial<PartAbout>) {
		if (!here) return;
		const before = aboutPart(here);
		draft.change({ kind: 'part', index: at, before, after: aboutPart({ ...before, ...change }) });
	}
	function movePart(step: 1 | -1) {
		write(null);
		if (!here || !paper.parts[at + step]) return;
		draft.change({ kind: 'move_part', title: here.title, from: at, to: at + step });
		part = at + step;
	}
	function about(change: Partial<Extract<PaperEdit, { kind: 'about' }>['after']>) {
		const before = aboutOf(paper);
		draft.change({ kind: 'about', before, after: { ...before, ...change } });
	}
	function take(questions: Question[]) {
		write(null);
		if (paper.parts.length === 0) addPart();
		const index = here?.questions.length ?? 0;
		questions.forEach((question, i) =>
			draft.change({ kind: 'question', before: null, after: question, at: { part: Math.max(0, at), index: index + i } })
		);
	}
	function look(pair: boolean) {
		write(null);
		isPair = pair;
		isPreviewed = true;
	}
	async function show(id: string) {
		const spot = spotOf(paper, id);
		if (!spot) return;
		write(id);
		part = spot.part;
		await tick();
		document.getElementById(`question-${id}`)?.scrollIntoView({ block: 'center' });
	}
	async function freeze() {
		if (busy) return;
		busy = true;
		const answer = await send<{ version: number }>('POST', `/papers/${draft.id}/freeze`, { revision: draft.revision });
		busy = false;
		if (answer.ok) {
			frozen = answer.data;
			isFreezing = false;
			trouble = null;
			await invalidateAll();
		} else trouble = inWords(answer.problem);
	}

	function onkeydown(event: KeyboardEvent) {
		const target = event.target as HTMLElement;
		if (target.closest('dialog') || event.metaKey) return;
		const isTyping = isTypedInto(target);
		if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown') && !isTyping) {
			const id = editing ?? target.closest<HTMLElement>('[data-question-row]')?.dataset.questionRow;
			if (!id) return;
			event.preventDefault();
			draft.move(id, event.key === 'ArrowUp' ? -1 : 1);
			return;
		}
		if (isTyping || event.altKey) return;
		if (event.ctrlKey) {
			if (event.key.toLowerCase() !== 'z') return;
			event.preventDefault();
			undo();
			return;
		}
		const keys: Record<string, () => void> = {
			q: () => addQuestion(),
			p: () => addPart(),
			v: () => count > 0 && look(false),
			z: () => undo(),
			t: () => (isPasting = true),
			o: () => (isTaking = true)
		};
		const act = keys[event.key.toLowerCase()];
		if (!act) return;
		event.preventDefault();
		act();
	}
</script>

<svelte:window
	{onkeydown}
	onbeforeunload={(event) => {
		editor?.leave();
		if (draft.waiting > 0) event.preventDefault();
	}}
/>
<svelte:head><title>{paper.title} · Otium</title></svelte:head>

<div class="grid h-full min-h-0 grid-cols-[236px_minmax(0,1fr)_320px] max-lg:block max-lg:h-auto">
	<aside class="border-line min-h-0 overflow-auto border-r px-3.5 py-4 max-lg:border-r-0">
		<a href="/papers" class="text-tide text-[13px] font-semibold underline">All papers</a>
		<h1 class="mt-1 text-[22px] leading-tight break-words">{paper.title}</h1>
		<p class="text-ink-2 mt-1 text-[13px]">
			{data.draft.basedOn ? `version ${data.draft.basedOn.version + 1}, being written` : 'being written'}{data.owner
				? `, ${data.owner}`
				: ''}<br />
			<span data-testid="kept"
				>{draft.waiting > 0 ? 'Saving…' : `Saved ${clockTime(draft.changedAt, data.site.zone)}`}</span
			>
			<button type="button" class="text-tide ml-1 underline" onclick={() => (isAbout = true)}>Title, script…</button>
		</p>
		<PartsList
			{paper}
			{at}
			onpart={(i) => {
				write(null);
				part = i;
			}}
			onmove={(id, to) => draft.change({ kind: 'move_question', id, to })}
		/>
		<div class="mt-3 flex flex-wrap gap-2">
			<Act key="P" onclick={addPart} testid="add-part">Part</Act>
			<Act key="Q" onclick={() => addQuestion()} testid="add-question">Question</Act>
		</div>
		<label class="text-ink-2 mt-3 block text-[13px]"
			>Kind of the next question
			<select
				class="bg-sheet border-line-strong mt-1 w-full rounded-lg border px-2 py-1.5 text-[14px]"
				bind:value={kind}
				data-testid="kind"
			>
				{#each QUESTION_KINDS as one (one)}<option value={one}>{QUESTION_KIND_NAMES[one]}</option>{/each}
			</select></label
		>
		<div class="mt-3 flex flex-wrap gap-2">
			<Act size="xs" key="T" onclick={() => (isPasting = true)} testid="paste-open">From text, table…</Act>
			<Act size="xs" key="O" onclick={() => (isTaking = true)} testid="others-open">From the bank…</Act>
			<Act size="xs" key="Z" disabled={!draft.canUndo} onclick={undo} testid="undo">Undo</Act>
		</div>
		<p class="text-ink-3 mt-3 text-[13px]">
			Alt ↑ and Alt ↓ move a question; or drag it by its number, onto another or a part.
		</p>
	</aside>

	<main class="min-h-0 overflow-auto px-5 py-4">
		{#if draft.trouble}<p role="alert" class="bg-brick-ground text-brick mb-3 rounded-lg px-3 py-2">
				{draft.trouble}
			</p>{/if}
		{#if frozen}<p role="status" class="bg-mist text-tide mb-3 rounded-lg px-3 py-2 font-semibold" data-testid="frozen">
				Version {frozen.version} is frozen and can be chosen for a session. What you change from now on is for version {frozen.version +
					1}.
			</p>{/if}
		{#if here}
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
							onnext={() => addQuestion(question.kind)}
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
							newer={bank.newer[question.id]}
							onmove={(id) => draft.change({ kind: 'move_question', id, to: { part: at, index: i } })}
							showsShared={shared?.id !== question.stimulus?.id}
							onedit={() => write(question.id)}
							onfix={(after) => draft.change({ kind: 'question', before: question, after, at: { part: at, index: i } })}
							lead={lead ? nameInPaper(paper, lead.id) : undefined}
						>
							{#if paper.forms && !lead}<FormLetters
									forms={paper.forms}
									id={question.id}
									onform={(name) => about({ forms: putIn(paper.forms!, name, question.id) })}
								/>{/if}
						</QuestionRead>
					{/if}
				{:else}
					<li class="text-ink-2 py-6 text-[15px]">
						No question in this part yet. Press Q to write one, or T to add text you already have.
					</li>
				{/each}
			</ol>
		{:else}
			<p class="text-ink-2">This paper has no part yet. Press P to add one.</p>
		{/if}
	</main>

	<PaperSide
		id={draft.id}
		{paper}
		{gets}
		{doubts}
		{bank}
		isKept={draft.waiting === 0}
		basedOn={data.draft.basedOn?.version ?? null}
		onshow={show}
		onlook={look}
		onplan={() => {
			write(null);
			isPlanned = true;
		}}
		onforms={() => {
			write(null);
			isDivided = true;
		}}
		oncompare={() => {
			write(null);
			isCompared = true;
		}}
		onfreeze={() => {
			write(null);
			isFreezing = true;
		}}
	/>
</div>

<Preview {paper} {isPair} bind:open={isPreviewed} />
<Changes bind:open={isCompared} id={draft.id} {paper} />
<FromBank bind:open={isTaking} {paper} part={here?.title ?? ''} ontake={(question) => take([question])} />
<Paste id={draft.id} bind:open={isPasting} part={here?.title ?? ''} ontake={take} />
<Ask
	bind:open={isFreezing}
	title="Ready to be sat: {paper.title}"
	verb="Freeze version {(data.draft.basedOn?.version ?? 0) + 1}"
	{busy}
	error={trouble}
	onconfirm={freeze}
>
	<p>Each candidate gets <Sentence parts={gets} /></p>
	<p class="text-ink-2 mt-2">
		The version never changes after this, and sessions can choose it from now on. Sessions that use an earlier version
		keep it.
	</p>
</Ask>
<Plan
	bind:open={isPlanned}
	id={draft.id}
	{paper}
	part={here?.title ?? ''}
	isKept={draft.waiting === 0}
	onplan={(plan) => about({ plan })}
	ontake={take}
/>
<Forms bind:open={isDivided} id={draft.id} {paper} isKept={draft.waiting === 0} onforms={(forms) => about({ forms })} />
<AboutPaper bind:open={isAbout} {paper} onchange={about} />
{#if draft.conflict}<TwoAtOnce {draft} conflict={draft.conflict} />{/if}
