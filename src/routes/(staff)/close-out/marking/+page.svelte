<script lang="ts">
	import { counted } from '$core/names';
	import { invalidateAll } from '$app/navigation';
	import { page } from '$app/state';
	import { firstWords, plainText } from '$core/paper';
	import { shownPoints } from '$core/results';
	import { minutesInWords, timeAndDate } from '$core/time';
	import Act from '$ui/Act.svelte';
	import Ask from '$ui/Ask.svelte';
	import { getClock } from '$ui/clock-context';
	import Field from '$ui/Field.svelte';
	import Textarea from 'flowbite-svelte/Textarea.svelte';
	import { inWords, send } from '$ui/post';
	import Plan from './Plan.svelte';
	import Queue from './Queue.svelte';
	import type { HandProgress } from '$lib/server/marking';

	let { data } = $props();
	const clock = getClock();
	const zone = $derived(data.site.zone);
	const chosen = $derived(
		data.questions.find(
			({ paperId, question }) =>
				paperId === page.url.searchParams.get('paper') && question.id === page.url.searchParams.get('question')
		) ?? null
	);
	const of = $derived(
		chosen && { administrationId: chosen.administrationId, paperId: chosen.paperId, questionId: chosen.question.id }
	);
	const nameOf = (id: string) => data.people.find((one) => one.id === id)?.name ?? 'another marker';
	const href = ({ paperId, question }: HandProgress) =>
		`/close-out/marking?${new URLSearchParams({ paper: paperId, question: question.id })}`;
	const mine = (one: HandProgress) => one.byMarker.find(({ id }) => id === data.me)?.waits ?? 0;
	let planning = $state(false);
	let taking = $state<{ id: string; label: string; marker: string } | null>(null);
	let why = $state('');
	let trouble = $state<string | null>(null);
	const left = $derived(data.questions.reduce((sum, { answers, settled }) => sum + answers - settled, 0));

	async function takeBack() {
		const body = { act: 'take_back', id: taking!.id, administrationId: of!.administrationId, why };
		const answer = await send('POST', '/close-out/marking/plan', body);
		trouble = answer.ok ? null : inWords(answer.problem);
		if (answer.ok) taking = null;
		await invalidateAll();
	}
</script>

<svelte:head><title>Marking · Otium</title></svelte:head>
<main class="mx-auto max-w-6xl px-6 py-5">
	{#if !chosen}
		<h1 class="text-[28px]">Marking</h1>
		<p class="text-ink-2 mb-4">
			{#if data.questions.length === 0}Nothing is marked by people here.
			{:else if left === 0}Everything is marked.
			{:else}{left}
				{left === 1 ? 'answer waits' : 'answers wait'} for a mark. Nobody who marks sees whose answer it is.{/if}
		</p>
		<ul class="space-y-3">
			{#each data.questions as one (one.paperId + one.question.id)}
				<li class="bg-sheet border-line rounded-2xl border px-5 py-4" data-testid="hand-question">
					<div class="flex flex-wrap items-baseline gap-3">
						<a class="text-tide text-[17px] font-semibold underline" href={href(one)}>{firstWords(one.question.stem)}</a
						>
						<span class="text-ink-2 text-[14px]">{one.paper} · {counted(one.question.points, 'point')}</span>
						{#if mine(one) > 0}<span
								class="bg-ochre-ground text-ochre rounded-full px-2 py-px text-[13px] font-semibold"
								>{mine(one)} for you</span
							>{/if}
						<span class="text-ink-2 ml-auto text-[14px]">{one.settled} of {one.answers} settled</span>
					</div>
					<div class="bg-line-strong my-2 h-2 overflow-hidden rounded-full">
						<div class="bg-tide h-full" style:width="{(one.settled / one.answers) * 100}%"></div>
					</div>
					<p class="text-ink-2 text-[14px]">
						{#if one.plan.markers.length === 0}<strong class="text-ochre">Nobody is named to mark it.</strong>
						{:else}{one.byMarker
								.map(({ id, waits, done }) => `${nameOf(id)}: ${done} marked, ${waits} to go`)
								.join(' · ')}{/if}
						{#if one.open.third > 0}· <strong class="text-plum">{one.open.third} for a third person</strong>{/if}
						{#if one.minutesLeft}· about {minutesInWords(one.minutesLeft)} left{/if}
					</p>
				</li>
			{/each}
		</ul>
	{:else}
		<p class="text-[14px]"><a class="text-tide underline" href="/close-out/marking">All questions</a></p>
		<div class="mb-4 flex flex-wrap items-baseline gap-3">
			<h1 class="max-w-4xl text-[22px]">{plainText(chosen.question.stem)}</h1>
			<p class="text-ink-2">
				{chosen.paper} · {counted(chosen.question.points, 'point')} · {chosen.settled} of {chosen.answers} settled
			</p>
			{#if data.may.decide}<Act class="ml-auto" onclick={() => (planning = !planning)} testid="plan"
					>{planning ? 'Hide' : 'Who marks, and how…'}</Act
				>{/if}
		</div>
		{#if planning || (data.may.decide && chosen.plan.markers.length === 0)}
			<section class="bg-sheet border-line mb-4 rounded-2xl border px-5 py-4" aria-label="Who marks">
				{#key chosen.revision}
					<Plan
						of={of!}
						plan={chosen.plan}
						revision={chosen.revision}
						points={chosen.question.points}
						people={data.people}
						onsaved={() => ((planning = false), void invalidateAll())}
					/>
				{/key}
			</section>
		{/if}
		{#if data.work}<Queue work={data.work} of={of!} {zone} />{/if}
		{#if data.may.decide}
			<section class="mt-5" aria-label="Agreement">
				<h2 class="text-[19px]">Agreement</h2>
				<p class="text-ink-2" data-testid="agreement">
					{#if chosen.agreement.pairs === 0}No answer has been marked twice.
					{:else}{chosen.agreement.pairs} marked twice: {Math.round(chosen.agreement.exact! * 100)} % equal, {shownPoints(
							chosen.agreement.apart!
						)} points apart on average{chosen.agreement.kappa === null
							? ''
							: `, weighted kappa ${chosen.agreement.kappa.toFixed(2)}`}.{/if}
				</p>
				{#if data.marks.length > 0}
					<details class="mt-2">
						<summary class="cursor-pointer">All marks ({data.marks.length})</summary>
						<ul class="bg-sheet border-line mt-2 rounded-2xl border">
							{#each data.marks as mark (mark.id)}
								<li class="border-line flex items-center gap-3 border-b px-4 py-2 text-[14px] last:border-b-0">
									<span class="font-mono">{mark.label}</span><span>{mark.marker}</span>
									<strong>{shownPoints(mark.points)}</strong>
									<span class="text-ink-2 min-w-0 flex-1 truncate">{mark.comment}</span>
									<span class="text-ink-3 font-mono">{timeAndDate(mark.at, zone, clock.now)}</span>
									<Act size="xs" onclick={() => ((taking = mark), (why = ''))}>Take it back…</Act>
								</li>
							{/each}
						</ul>
					</details>
				{/if}
			</section>
		{/if}
	{/if}
	<Ask
		open={taking !== null}
		title="Take back a mark of {taking?.marker ?? ''}"
		verb="Take it back"
		tone="danger"
		disabled={why.trim() === ''}
		error={trouble}
		onconfirm={takeBack}
	>
		<p>Answer {taking?.label} waits for a mark again. What was given stays in the record.</p>
		<Field id="why" label="Why" class="mt-3"><Textarea id="why" class="w-full" rows={2} bind:value={why} /></Field>
	</Ask>
</main>
