<!-- @component A paper that is being written: its parts, its questions, and what each candidate gets. -->
<script lang="ts">
	import { onMount, tick, untrack } from 'svelte';
	import { beforeNavigate } from '$app/navigation';
	import {
		aboutOf,
		doubtsOfPaper,
		eachGets,
		QUESTION_KIND_NAMES,
		QUESTION_KINDS,
		spotOf,
		takeOver,
		type PaperEdit,
		type Question,
		type QuestionKind,
		type ReadQuestion
	} from '$core/paper';
	import { timeAndDate } from '$core/time';
	import { getClock } from '$ui/clock-context';
	import Act from '$ui/Act.svelte';
	import Shortcuts from '$ui/Shortcuts.svelte';
	import AboutPaper from './AboutPaper.svelte';
	import Changes from './Changes.svelte';
	import { DraftPaper } from './draft.svelte';
	import PaperSide from './PaperSide.svelte';
	import { BesideBank } from './beside-bank.svelte';
	import Forms from './Forms.svelte';
	import FromBank from './FromBank.svelte';
	import Freeze from './Freeze.svelte';
	import PartEdit from './PartEdit.svelte';
	import PartsList from './PartsList.svelte';
	import Paste from './Paste.svelte';
	import Plan from './Plan.svelte';
	import Preview from './Preview.svelte';
	import TwoAtOnce from './TwoAtOnce.svelte';
	import type { PageData } from './$types';

	let { data }: { data: PageData } = $props();
	const clock = getClock();
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
	let frozen = $state<number | null>(null);

	const paper = $derived(draft.paper);
	const at = $derived(Math.min(part, paper.parts.length - 1));
	const here = $derived(paper.parts[at]);
	const doubts = $derived(doubtsOfPaper(paper));
	const gets = $derived(eachGets(paper));
	const count = $derived(paper.parts.reduce((sum, { questions }) => sum + questions.length, 0));

	function addQuestion(of: QuestionKind = kind) {
		editor?.leave();
		kind = of;
		const after = editing === null ? null : spotOf(paper, editing);
		const index = after && after.part === at ? after.index + 1 : (here?.questions.length ?? 0);
		if (paper.parts.length === 0) addPart();
		editing = draft.add(of, { part: Math.max(0, at), index });
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
	function takeRead(questions: ReadQuestion[], asParts: boolean) {
		write(null);
		draft.change(takeOver(paper, questions, Math.max(0, at), asParts));
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
	const keys = {
		q: () => addQuestion(),
		p: () => addPart(),
		v: () => void (count > 0 && look(false)),
		z: () => undo(),
		t: () => void (isPasting = true),
		o: () => void (isTaking = true)
	};
	function move(by: 1 | -1, target: Element) {
		const id = editing ?? target.closest<HTMLElement>('[data-question-row]')?.dataset.questionRow;
		if (id) draft.move(id, by);
	}
</script>

<Shortcuts
	{keys}
	combined={{
		'Alt+ArrowUp': (target) => move(-1, target),
		'Alt+ArrowDown': (target) => move(1, target),
		'Ctrl+z': () => undo()
	}}
/>
<svelte:window
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
				>{draft.waiting > 0 ? 'Saving…' : `Saved ${timeAndDate(draft.changedAt, data.site.zone, clock.now)}`}</span
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
		{#if frozen !== null}<p
				role="status"
				class="bg-mist text-tide mb-3 rounded-lg px-3 py-2 font-semibold"
				data-testid="frozen"
			>
				Version {frozen} is frozen and can be chosen for a session. What you change from now on is for version {frozen +
					1}.
			</p>{/if}
		{#if here}
			<PartEdit
				bind:this={editor}
				bind:editing
				{draft}
				{at}
				{doubts}
				newer={bank.newer}
				onadd={addQuestion}
				onmoved={(to) => (part = to)}
				onforms={(forms) => about({ forms })}
			/>
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
<Paste id={draft.id} bind:open={isPasting} part={here?.title ?? ''} ontake={takeRead} />
<Freeze
	bind:open={isFreezing}
	{draft}
	{gets}
	version={(data.draft.basedOn?.version ?? 0) + 1}
	onfrozen={(version) => (frozen = version)}
/>
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
