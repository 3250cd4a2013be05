<!-- @component A practice paper: each question can be checked at once and tried again, at its cost. Nothing is kept. -->
<script lang="ts">
	import { exactSum } from '$core/marking';
	import { shownPoints } from '$core/results';
	import { invalidateAll } from '$app/navigation';
	import { blocksOf, isBlank, sharedAround, type AnswerValue, type TryRules } from '$core/paper';
	import type { Tried } from '$core/practice';
	import { inWords, send } from '$ui/post';
	import Press from '../../Press.svelte';
	import Blocks from '../../question/Blocks.svelte';
	import MediaShown from '../../question/MediaShown.svelte';
	import Text from '../../question/Text.svelte';
	import QuestionView from '../../QuestionView.svelte';

	let { data } = $props();
	type Given = { value: AnswerValue; tries: number; tried: Tried | null };
	let given = $state.raw<Record<string, Given>>({});
	let at = $state(0);
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	const question = $derived(data.questions[at]);
	const own = $derived(given[question.id] ?? { value: null, tries: 0, tried: null });
	/** Right, given up on, or nothing that can be checked. */
	const isOver = $derived(own.tried !== null && own.tried.triesLeft === 0);
	const points = $derived(exactSum(Object.values(given).map(({ tried }) => tried?.points ?? 0)));
	const checked = $derived(Object.values(given).filter(({ tried }) => tried !== null).length);
	const SAID = {
		right: 'Right.',
		partly: 'Partly right.',
		wrong: 'Not right.',
		blank: 'Nothing is answered.',
		to_mark: 'A person would mark this one.'
	} as const;

	async function check() {
		if (busy || isOver) return;
		busy = true;
		const { id } = question;
		const tries = own.tries + 1;
		const body = { seed: data.seed, questionId: id, value: own.value, tries };
		const answer = await send<Tried>('POST', location.pathname, body);
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (answer.ok) given = { ...given, [id]: { ...own, tries, tried: answer.data } };
	}
	async function anew() {
		given = {};
		at = 0;
		await invalidateAll();
	}
	const costOf = (what: string, { tries, costPercent }: TryRules) =>
		tries === 1
			? `${what} can be checked once.`
			: `${what} can be tried ${tries} times${costPercent > 0 ? `; each wrong try costs ${costPercent} % of its points` : ', at no cost'}.`;
	const cost = $derived(costOf('Each question', data.practice));
</script>

<svelte:head><title>{data.title}, practice · Otium</title></svelte:head>
<header class="bg-plum-ground text-plum px-6 py-1.5 text-center text-[15px] font-semibold">
	Practice: nothing is kept, and nobody is told. {cost}
</header>
<main class="mx-auto max-w-[720px] px-5 py-8">
	<div class="mb-6 flex flex-wrap items-baseline gap-3">
		<h1 class="text-[24px]">{data.title}</h1>
		<span class="text-ink-2 ml-auto" data-testid="practice-score"
			>{shownPoints(points)} points from {checked} checked</span
		>
	</div>
	{#if data.instructions && at === 0}<div class="bg-mist mb-6 rounded-xl px-4 py-3">
			<Blocks blocks={blocksOf(data.instructions)} />
		</div>{/if}
	{#each data.material as { name, pages } (name)}<details class="mb-4">
			<summary class="cursor-pointer font-semibold">{name}</summary>
			<MediaShown media={pages} addressOf={(file) => `${location.pathname}/media/${file}`} />
		</details>{/each}
	{#key `${data.seed} ${question.id}`}
		<QuestionView
			{question}
			number={at + 1}
			of={data.questions.length}
			given={{ value: own.value, marked: false, struck: [], inViewMs: 0 }}
			picture={question.picture ? data.pictures[question.picture] : undefined}
			hints
			isClosed={isOver}
			addressOf={(file) => `${location.pathname}/media/${file}`}
			sharedBy={sharedAround(at, (place) => data.questions[place]?.stimulus?.id)}
			onchange={({ value }) => {
				if (value !== undefined) given = { ...given, [question.id]: { ...own, value } };
			}}
		/>
	{/key}
	{#if data.own[question.id]}<p class="text-plum mt-4 text-[16px]">{costOf('This one', data.own[question.id])}</p>{/if}
	{#if trouble}<p role="alert" class="bg-brick-ground text-brick mt-4 rounded-xl px-4 py-2.5">{trouble}</p>{/if}
	{#if own.tried}
		<p
			role="status"
			class="mt-4 rounded-xl px-4 py-2.5 {own.tried.verdict === 'right'
				? 'bg-mist text-tide'
				: 'bg-ochre-ground text-ochre'}"
			data-testid="tried"
		>
			<strong>{SAID[own.tried.verdict]}</strong>
			{#if own.tried.points !== null}{shownPoints(own.tried.points)} of {shownPoints(own.tried.outOf)} points.{/if}
			{own.tried.feedback ?? ''}
			{#if own.tried.hint}<span class="block" data-testid="hint">Hint: <Text text={own.tried.hint} /></span>{/if}
			{#if own.tried.triesLeft > 0}You can try again: {own.tried.triesLeft}
				{own.tried.triesLeft === 1 ? 'try' : 'tries'} left.{/if}
		</p>
	{/if}
	<div class="mt-6 flex flex-wrap gap-3">
		<Press onclick={() => (at -= 1)} disabled={at === 0}>Back</Press>
		<Press main onclick={check} disabled={busy || isOver || isBlank(own.value)} testid="check"
			>{own.tries > 0 && !isOver ? 'Check again' : 'Check'}</Press
		>
		<Press onclick={() => (at += 1)} disabled={at >= data.questions.length - 1} testid="next">Next</Press>
	</div>
	<p class="mt-10 text-[16px]">
		<button type="button" class="font-semibold underline" onclick={anew}
			>Start again, with other questions or another order</button
		>
		· <a class="font-semibold underline" href="/sit/practice">Other papers</a>
	</p>
</main>
