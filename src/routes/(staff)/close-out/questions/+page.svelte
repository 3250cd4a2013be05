<script lang="ts">
	import { counted } from '$core/names';
	import Select from 'flowbite-svelte/Select.svelte';
	import { goto, invalidateAll } from '$app/navigation';
	import { page } from '$app/state';
	import { correctionInWords } from '$core/correction';
	import { DOUBTFUL, FLAGS, type QuestionFigures } from '$core/figures';
	import { isMarkedByHand, plainText } from '$core/paper';
	import { shownPoints } from '$core/results';
	import { timeAndDate } from '$core/time';
	import { getClock } from '$ui/clock-context';
	import Correct from './Correct.svelte';
	import Taken from './Taken.svelte';
	import QuestionMap from './Map.svelte';

	let { data } = $props();
	const clock = getClock();
	let told = $state<string | null>(null);
	const byId = $derived(new Map((data.questions ?? []).map((one) => [one.id, one])));
	const figures = $derived(data.figures?.questions ?? []);
	const worst = $derived(
		figures.find(({ flags }) => flags.some((flag) => DOUBTFUL.includes(flag))) ??
			figures.find(({ flags }) => flags.length > 0) ??
			figures[0]
	);
	/** What was decided about stays on the screen, also when another question is the worst now. */
	let pinned = $state<string | null>(null);
	const wanted = $derived(page.url.searchParams.get('question') ?? pinned);
	const chosen = $derived(figures.find(({ questionId }) => questionId === wanted) ?? worst ?? null);
	const question = $derived(chosen && byId.get(chosen.questionId));
	const elsewhere = $derived(chosen && data.elsewhere?.[chosen.questionId]);
	const corrections = $derived(data.corrections?.filter(({ questionId }) => questionId === chosen?.questionId) ?? []);
	const waiting = $derived(corrections.find(({ state }) => state === 'waits') ?? null);
	const isAgainst = (one: QuestionFigures) => one.flags.some((flag) => DOUBTFUL.includes(flag));
	const counts = $derived({
		well: figures.filter(({ flags, toMark, seen }) => flags.length === 0 && toMark < seen).length,
		look: figures.filter((one) => one.flags.length > 0 && !isAgainst(one)).length,
		against: figures.filter(isAgainst).length,
		hand: figures.filter(({ questionId }) => isMarkedByHand(byId.get(questionId)!.question)).length
	});
	const two = (value: number | null | undefined) =>
		value === null || value === undefined ? '–' : value.toFixed(2).replace('-', '−');
	const percent = (value: number | null) => (value === null ? '–' : `${Math.round(value * 100)} %`);
	const nameOf = (id: string) => byId.get(id)?.name ?? '';
	const choose = (id: string) =>
		goto(`?${new URLSearchParams({ paper: data.paper!.id, question: id })}`, { noScroll: true, keepFocus: true });
	function valueInWords(value: string): string {
		const choice = question?.shown.choices?.find(({ id }) => id === value);
		return choice ? plainText(choice.text) : value === 'true' ? 'True' : value === 'false' ? 'False' : value;
	}
	const verdictWords = $derived.by(() => {
		if (!chosen) return [];
		return chosen.flags.map((flag) => {
			if (flag !== 'best_prefer_wrong') return FLAGS[flag];
			const right = chosen.taken.filter(({ isRight }) => isRight);
			const best = chosen.taken.filter(({ isRight }) => !isRight).sort((a, b) => b.thirds[0] - a.thirds[0])[0];
			const third = chosen.taken.reduce((sum, { thirds }) => sum + thirds[0], 0);
			return `${best.thirds[0]} of the ${third} best chose “${valueInWords(best.value)}”, ${right[0]?.thirds[0] ?? 0} the key: the key or the question may be wrong`;
		});
	});
	async function changed(words: string) {
		told = words;
		pinned = chosen?.questionId ?? null;
		await invalidateAll();
	}
</script>

<svelte:head><title>How questions did · Otium</title></svelte:head>
{#if !data.paper || !data.figures}
	<main class="mx-auto max-w-4xl px-6 py-8">
		<h1 class="text-[28px]">How questions did</h1>
		<p class="bg-sheet border-line text-ink-2 mt-4 rounded-2xl border p-10 text-center">
			Nobody has handed in anything yet.
		</p>
	</main>
{:else}
	<main class="grid gap-5 px-6 py-5 lg:grid-cols-[minmax(0,520px)_1fr]">
		<div>
			<div class="mb-3 flex flex-wrap items-baseline gap-3">
				<h1 class="text-[26px]">{data.paper.title}</h1>
				<span class="text-ink-2 ml-auto text-[13.5px]"
					>version {data.paper.version} · {counted(data.figures.sittings, 'sitting')}</span
				>
			</div>
			{#if data.papers.length > 1}
				<Select
					class="mb-3"
					aria-label="Paper"
					value={data.paper.id}
					onchange={(event) => goto(`?paper=${(event.currentTarget as HTMLSelectElement).value}`)}
					items={data.papers.map(({ id, title, version }) => ({ value: id, name: `${title}, version ${version}` }))}
				/>
			{/if}
			<section class="bg-sheet border-line rounded-2xl border p-4" aria-label="All questions">
				<h2 class="mb-2 text-[15px] font-semibold" style="font-family:inherit">
					Each question, by how many had it right and how well it tells the able from the rest
				</h2>
				<QuestionMap {figures} {nameOf} chosen={chosen?.questionId ?? null} onchoose={choose} />
				<p class="mt-2 text-[14.5px]" data-testid="reliability">
					Reliability <strong class="font-mono">{two(data.figures.alpha.value)}</strong>
					<span class="text-ink-2"
						>Cronbach’s alpha over {counted(data.figures.alpha.over, 'question')} that everybody had{chosen &&
						data.figures.alpha.without[chosen.questionId] !== undefined
							? `; without ${nameOf(chosen.questionId)} it would be ${two(data.figures.alpha.without[chosen.questionId])}`
							: ''}</span
					>
					· points {shownPoints(data.figures.points.least ?? 0)} to {shownPoints(data.figures.points.most ?? 0)}, middle {shownPoints(
						data.figures.points.median ?? 0
					)}{data.figures.standardError === null
						? ''
						: `; a score may lie ${shownPoints(data.figures.standardError)} points beside the true one (standard error)`}
				</p>
			</section>
			<p class="mt-3 flex flex-wrap gap-2 text-[13px] font-semibold">
				<span class="bg-mist text-tide rounded-full px-2.5 py-0.5">{counts.well} serve well</span>
				{#if counts.look > 0}<span class="bg-ochre-ground text-ochre rounded-full px-2.5 py-0.5"
						>{counts.look} to look at</span
					>{/if}
				{#if counts.against > 0}<span class="bg-brick-ground text-brick rounded-full px-2.5 py-0.5"
						>{counts.against}
						{counts.against === 1 ? 'speaks' : 'speak'} against {counts.against === 1 ? 'itself' : 'themselves'}</span
					>{/if}
				{#if counts.hand > 0}<span class="bg-plum-ground text-plum rounded-full px-2.5 py-0.5"
						>{counts.hand} by hand</span
					>{/if}
			</p>
			<details class="mt-4" open={figures.length <= 12}>
				<summary class="cursor-pointer text-[16px]">All figures as a table</summary>
				<table class="bg-sheet border-line mt-2 w-full rounded-xl border text-[13.5px]" data-testid="figures">
					<thead
						><tr class="text-ink-2 text-left">
							<th scope="col" class="px-3 py-1.5">Question</th><th scope="col">Seen</th><th scope="col">Reached</th><th
								scope="col">Tells</th
							><th scope="col">Time</th><th scope="col">What stands out</th>
						</tr></thead
					>
					<tbody>
						{#each figures as one (one.questionId)}
							<tr class="border-line border-t {one.questionId === chosen?.questionId ? 'bg-mist' : ''}">
								<th scope="row" class="px-3 py-1.5 text-left"
									><button class="text-tide underline" onclick={() => choose(one.questionId)}
										>{nameOf(one.questionId)}</button
									></th
								>
								<td>{one.seen}</td><td>{percent(one.facility)}</td><td class="font-mono">{two(one.discrimination)}</td>
								<td>{one.medianMs === null ? '–' : `${Math.round(one.medianMs / 1000)} s`}</td>
								<td class={isAgainst(one) ? 'text-brick' : 'text-ochre'}
									>{one.flags.map((flag) => FLAGS[flag]).join('; ')}</td
								>
							</tr>
						{/each}
					</tbody>
				</table>
			</details>
		</div>
		{#if chosen && question}
			<section
				class="bg-sheet border-line self-start rounded-2xl border px-5 py-4"
				aria-label="Question {question.name}"
				data-testid="question"
			>
				<div class="flex flex-wrap items-baseline gap-2.5">
					<h2 class="text-[20px]">{question.name}</h2>
					<span
						class="rounded-full px-2 py-px font-mono text-[13.5px] font-semibold {isAgainst(chosen)
							? 'bg-brick-ground text-brick'
							: 'bg-mist text-tide'}">{two(chosen.discrimination)}</span
					>
					<span class="text-ink-2 text-[14px]"
						>{chosen.right} of {chosen.seen} right · seen by {chosen.seen} of {data.figures
							.sittings}{chosen.medianMs === null
							? ''
							: ` · median ${Math.round(chosen.medianMs / 1000)} s`}{chosen.blanks > 0
							? ` · ${chosen.blanks} blank`
							: ''}</span
					>
					{#if question.counts !== 'as_marked'}<span
							class="bg-plum-ground text-plum rounded-full px-2 py-px text-[13px] font-semibold"
							>{question.counts === 'for_all' ? 'counts for all' : 'left out'}</span
						>{/if}
				</div>
				<p class="mt-2 font-serif text-[18px]">{plainText(question.question.stem)}</p>
				<p class="text-ink-2 mt-1 text-[13.5px]">
					Meant as {question.expected.difficulty ?? 'nothing in particular'}{question.expected.seconds
						? `, ${question.expected.seconds} s`
						: ''}; key: {question.key || 'a person marks it'}.
					{#if data.seenIn?.length}
						See it as
						{#each data.seenIn.slice(0, 3) as one, i (one.sittingId)}<a
								class="text-tide underline"
								href="/close-out/sitting/{one.sittingId}#q{one.place}">question {one.place} of {one.name}’s paper</a
							>{i < Math.min(3, data.seenIn.length) - 1 ? ', ' : '.'}{/each}
					{:else}<a
							class="text-tide underline"
							href="?{new URLSearchParams({ paper: data.paper.id, question: chosen.questionId })}">Where it stood</a
						>{/if}
				</p>
				{#if chosen.taken.length > 0}<Taken taken={chosen.taken} {valueInWords} />{/if}
				{#each verdictWords as words (words)}<p
						class="mt-2 font-semibold {isAgainst(chosen) ? 'text-brick' : 'text-ochre'}"
					>
						{words[0].toUpperCase() + words.slice(1)}.
					</p>{/each}
				{#if chosen.bySite.length > 1 || chosen.byLanguage.length > 1}
					<p class="text-ink-2 mt-2 text-[13.5px]">
						{[
							...(chosen.bySite.length > 1 ? chosen.bySite : []),
							...(chosen.byLanguage.length > 1 ? chosen.byLanguage : [])
						]
							.map(({ name, seen, facility }) => `${name || 'own language'}: ${percent(facility)} of ${seen}`)
							.join(' · ')}
					</p>
				{/if}
				{#if elsewhere}
					<table class="mt-3 w-full max-w-md text-[13.5px]" data-testid="elsewhere">
						<caption class="text-ink-2 text-left">The same question elsewhere</caption>
						<tbody>
							{#each elsewhere.did as one (one.where)}
								<tr class="border-line border-t">
									<th scope="row" class="py-1 text-left font-normal">{one.where}</th>
									<td>{percent(one.facility)} of {one.seen}</td><td class="font-mono">{two(one.discrimination)}</td>
								</tr>
							{/each}
							<tr class="border-line border-t font-semibold">
								<th scope="row" class="py-1 text-left">all together</th>
								<td>{percent(elsewhere.together.facility)} of {elsewhere.together.seen}</td><td></td>
							</tr>
						</tbody>
					</table>
				{/if}
				{#if told}<p role="status" class="bg-mist text-tide mt-3 rounded-lg px-3 py-2" data-testid="told">
						{told}
					</p>{/if}
				{#if data.may.correct && data.mayCorrect}
					<div class="border-line mt-4 border-t pt-4">
						{#key `${chosen.questionId} ${waiting?.id ?? ''} ${corrections.length}`}
							<Correct
								of={{ administrationId: data.here!.id, paperId: data.paper.id, questionId: chosen.questionId }}
								question={question.question}
								shown={question.shown}
								isCorrected={corrections.some(({ state }) => state === 'counts')}
								isDoubtful={isAgainst(chosen)}
								correctors={data.correctors ?? []}
								waiting={waiting && {
									id: waiting.id,
									words: correctionInWords(question.question, waiting.correction),
									reason: waiting.reason,
									by: waiting.proposedBy.name,
									isMine: waiting.proposedBy.id === data.me
								}}
								onchanged={changed}
							/>
						{/key}
					</div>
				{/if}
				{#if corrections.some(({ state }) => state !== 'waits')}
					<ul class="border-line mt-4 border-t pt-3 text-[14px]" aria-label="Earlier corrections" data-testid="earlier">
						{#each corrections.filter(({ state }) => state !== 'waits') as one (one.id)}
							<li class="py-0.5">
								{correctionInWords(question.question, one.correction)}
								<span class="text-ink-2"
									>{one.proposedBy.name}: {one.reason}; {one.state === 'counts' ? 'confirmed' : 'declined'} by {one.decidedBy},
									{timeAndDate(one.decidedAt ?? one.proposedAt, data.site.zone, clock.now)}</span
								>
							</li>
						{/each}
					</ul>
				{/if}
				{#if data.runs && data.runs.length > 1}
					<p class="text-ink-2 mt-3 text-[13.5px]">
						Markings kept: {data.runs
							.map(({ why, mean, results }) => `${why} (${results} results, mean ${shownPoints(mean ?? 0)})`)
							.join(' · ')}
					</p>
				{/if}
			</section>
		{/if}
	</main>
{/if}
