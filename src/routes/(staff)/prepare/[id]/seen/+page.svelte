<!-- @component What candidates of a session will see, in their own components and by its rules. Nothing is kept. -->
<script lang="ts">
	import { goto, invalidateAll } from '$app/navigation';
	import { sharedAround, type AnswerValue } from '$core/paper';
	import { mayGoOn, mayTurn, pageAt } from '$core/session';
	import { isBlank } from '$core/paper';
	import { LOOKS, sizeOf } from '$player/display.svelte';
	import Act from '$ui/Act.svelte';
	import QuestionView from '../../../../sit/QuestionView.svelte';
	import Start from '../../../../sit/Start.svelte';

	let { data } = $props();
	let at = $state(0);
	let isInPaper = $state(false);
	let answers = $state.raw<Record<string, AnswerValue>>({});
	const { picture, questions, pictures } = $derived(data.seen);
	const rules = $derived(picture.session.movement);
	const shownPage = $derived(pageAt(rules, questions.length, at));
	const here = $derived(questions.slice(shownPage.from, shownPage.to));
	const isAnswered = (place: number) => !isBlank(answers[questions[place].id] ?? null);
	const may = (by: 1 | -1) => mayTurn(rules, shownPage, by, { isAnswered, readsOnly: false });
	const isStuck = $derived(!shownPage.isLast && !mayGoOn(rules, shownPage, isAnswered));

	/** As their own device would show it at first. */
	const display = $derived(picture.display);
	const classes = $derived(display.contrast ? LOOKS.strong.class : '');
	const size = $derived(`font-size:${(16 * sizeOf(display.magnification)) / 100}px`);
	function reset() {
		at = 0;
		answers = {};
		isInPaper = false;
	}
	async function again() {
		reset();
		await invalidateAll();
	}
	async function become(sittingId: string) {
		reset();
		await goto(`/prepare/${data.id}/seen${sittingId ? `?as=${sittingId}` : ''}`);
	}
</script>

<svelte:head><title>As candidates see it · Otium</title></svelte:head>
<div class="bg-plum-ground text-plum flex flex-wrap items-center gap-3 px-6 py-2 text-[15px]" data-testid="seen">
	<strong>As candidates see it:</strong>
	{data.name}. {data.as ? 'The form is dealt for this look, and' : 'The name is made up, and'} nothing is kept.
	<label class="flex items-center gap-2"
		>As
		<select
			class="bg-sheet border-line-strong text-ink rounded-lg border py-1 pr-8 pl-2 text-[14px]"
			value={data.as}
			onchange={(event) => become(event.currentTarget.value)}
			data-testid="seen-as"
		>
			<option value="">nobody in particular</option>
			{#each data.people as { id, name } (id)}<option value={id}>{name}</option>{/each}
		</select></label
	>
	<span class="ml-auto flex gap-2">
		{#if isInPaper}<Act size="xs" onclick={() => (isInPaper = false)}>Before it begins</Act>{/if}
		<Act size="xs" onclick={again}>Another candidate</Act>
		<Act size="xs" href="/prepare/{data.id}/ready">Leave</Act>
	</span>
</div>
<div class="bg-paper text-ink {classes}" style={size}>
	{#if !isInPaper}
		<Start {picture} busy={false} problem={null} isDeviceReady onbegin={() => (isInPaper = true)}>
			{#snippet deviceCheck()}{/snippet}
		</Start>
	{:else}
		<div class="mx-auto max-w-[720px] px-5 py-8">
			{#each here as question, i (question.id)}
				<div class="mb-8">
					<QuestionView
						{question}
						number={shownPage.from + i + 1}
						of={questions.length}
						given={{ value: answers[question.id] ?? null, marked: false, struck: [], inViewMs: 0 }}
						picture={question.picture ? pictures[question.picture] : undefined}
						language={display.language && question.inOther?.[display.language] ? display.language : null}
						hints={picture.session.tools.hints}
						addressOf={(file) => `/papers/media/${file}`}
						sharedBy={sharedAround(shownPage.from + i, (place) => questions[place]?.stimulus?.id)}
						onchange={({ value }) => {
							if (value !== undefined) answers = { ...answers, [question.id]: value };
						}}
					/>
				</div>
			{/each}
			<div class="flex items-center gap-3">
				<Act disabled={!may(-1)} onclick={() => (at = shownPage.from - 1)}>← Back</Act>
				<Act disabled={!may(1)} onclick={() => (at = shownPage.to)} testid="seen-next">Next →</Act>
				{#if isStuck}<span class="text-ink-2">Answer it to go on.</span>{/if}
			</div>
		</div>
	{/if}
</div>
