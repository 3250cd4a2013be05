<!--
@component One answer after the other: read it, give its points, go on. Keys: 0 to 9 give points, J and K go forward and
back, Enter gives the mark where there are criteria.
-->
<script lang="ts">
	import Input from 'flowbite-svelte/Input.svelte';
	import Textarea from 'flowbite-svelte/Textarea.svelte';
	import { nanoid } from 'nanoid';
	import { untrack } from 'svelte';
	import { invalidateAll } from '$app/navigation';
	import { plainText } from '$core/paper';
	import { readDecimal } from '$core/quantity';
	import { shownPoints } from '$core/results';
	import { timeAndDate } from '$core/time';
	import { getClock } from '$ui/clock-context';
	import Act from '$ui/Act.svelte';
	import { inWords, send } from '$ui/post';
	import Shortcuts from '$ui/Shortcuts.svelte';
	import Text from '../../../sit/question/Text.svelte';
	import type { MarkersWork } from '$lib/server/marking';

	type Props = {
		work: MarkersWork;
		of: { administrationId: string; paperId: string; questionId: string };
		zone: string;
	};
	let { work, of, zone }: Props = $props();
	const clock = getClock();
	const TURNS = { first: '', second: 'marked by somebody else already', third: 'two differ: yours decides' };

	let at = $state(0);
	let busy = $state(false);
	let trouble = $state<string | null>(null);
	let points = $state<string>('');
	let criteria = $state<Record<string, string>>({});
	let comment = $state('');
	let since = $state(Date.now());
	/** What is empty or can't be read is no mark, and least of all none. */
	const read = (typed = '') => readDecimal(typed) ?? NaN;
	const rubric = $derived(work.plan.rubric);
	const one = $derived(work.queue[Math.min(at, work.queue.length - 1)]);
	const most = $derived(work.question.points);
	const sum = $derived(rubric.reduce((total, { id }) => total + read(criteria[id]), 0));
	const isWhole = $derived(!Number.isNaN(rubric.length > 0 ? sum : read(points)));

	$effect(() => {
		// Another answer is there: what was entered for the one before does not go with it.
		void one?.key;
		untrack(() => {
			[points, criteria, comment, since, trouble] = ['', {}, '', Date.now(), null];
		});
	});

	async function give(value: string) {
		if (!one || busy) return;
		busy = true;
		const answer = await send('POST', '/close-out/marking', {
			act: 'mark',
			...of,
			id: nanoid(),
			key: one.key,
			points: rubric.length > 0 ? sum : read(value),
			criteria: Object.fromEntries(rubric.map(({ id }) => [id, read(criteria[id])])),
			comment,
			tookMs: Date.now() - since
		});
		busy = false;
		trouble = answer.ok ? null : inWords(answer.problem);
		if (answer.ok || answer.status === 422) await invalidateAll();
	}
	async function takeBack(id: string) {
		const answer = await send('POST', '/close-out/marking', { act: 'take_back', id });
		trouble = answer.ok ? null : inWords(answer.problem);
		await invalidateAll();
	}
	const keys = $derived({
		j: () => void (at = Math.min(at + 1, work.queue.length - 1)),
		k: () => void (at = Math.max(at - 1, 0)),
		Enter: () => void (isWhole && give(points)),
		// Without criteria a digit is the mark.
		...Object.fromEntries(
			Array.from({ length: rubric.length > 0 ? 0 : Math.min(9, Math.floor(most)) + 1 }, (_, digit) => [
				String(digit),
				() => void give(String(digit))
			])
		)
	});
	const fileUrl = (file: string) =>
		`/close-out/marking/file?${new URLSearchParams({ administration: of.administrationId, paper: of.paperId, question: of.questionId, key: one.key, file })}`;
</script>

<Shortcuts {keys} />
{#if trouble}<p role="alert" class="bg-brick-ground text-brick mb-3 rounded-lg px-3 py-2">{trouble}</p>{/if}
{#if one}
	<article class="bg-sheet border-line rounded-2xl border" data-testid="to-mark">
		<header class="border-line flex flex-wrap items-baseline gap-3 border-b px-5 py-3">
			<strong class="font-mono text-[17px]" data-testid="label">{one.label}</strong>
			<span class="text-ink-2 text-[14px]"
				>{Math.min(at + 1, work.queue.length)} of {work.queue.length} that wait for you</span
			>
			{#if TURNS[one.turn]}<span class="bg-plum-ground text-plum rounded-full px-2 py-px text-[13px] font-semibold"
					>{TURNS[one.turn]}{one.others.length > 0 ? `: ${one.others.map(shownPoints).join(' and ')}` : ''}</span
				>{/if}
			<span class="ml-auto flex gap-1.5">
				<Act size="xs" key="K" disabled={at === 0} onclick={() => (at = Math.max(at - 1, 0))}>Back</Act>
				<Act size="xs" key="J" disabled={at >= work.queue.length - 1} onclick={() => (at = at + 1)}>Later</Act>
			</span>
		</header>
		<div class="grid gap-0 lg:grid-cols-[1fr_340px]">
			<div class="min-h-60 px-5 py-4" data-testid="answer">
				{#if one.beside}
					<div class="bg-mist mb-4 max-w-prose rounded-xl px-4 py-3 text-[15px]" data-testid="beside">
						<p class="font-serif"><Text text={plainText(one.beside.stem)} /></p>
						<p class="mt-1">
							<span class="text-ink-2">Answered:</span>
							{#if one.beside.answer}<strong><Text text={one.beside.answer} /></strong>{:else}nothing{/if}
							<span class="text-ink-2 ml-3">Right:</span>
							<Text text={one.beside.right} />
						</p>
					</div>
				{/if}
				{#if Array.isArray(one.value)}
					{#each one.value as file, i (file)}
						<p class="mb-3">
							<a href={fileUrl(file)} target="_blank" rel="noreferrer" class="text-tide underline">File {i + 1}</a>
							<img
								src={fileUrl(file)}
								alt="Working, file {i + 1}"
								class="mt-1 max-h-120 rounded-lg"
								onerror={(event) => ((event.currentTarget as HTMLElement).hidden = true)}
							/>
						</p>
					{/each}
				{:else}
					<p class="max-w-prose font-serif text-[17px] leading-7 whitespace-pre-wrap">{one.value}</p>
				{/if}
			</div>
			<div class="border-line space-y-3 border-l px-5 py-4 max-lg:border-t max-lg:border-l-0">
				{#if rubric.length > 0}
					{#each rubric as criterion (criterion.id)}
						<div>
							<label for="c-{criterion.id}" class="text-[14px]">{criterion.text}</label>
							<div class="mt-1 flex items-center gap-2">
								<div class="w-20">
									<Input id="c-{criterion.id}" inputmode="decimal" bind:value={criteria[criterion.id]} />
								</div>
								<span class="text-ink-2 text-[14px] whitespace-nowrap">of {criterion.points}</span>
							</div>
						</div>
					{/each}
					<p class="text-[15px]"><strong>{Number.isNaN(sum) ? '…' : shownPoints(sum)}</strong> of {most} points</p>
				{:else}
					<div class="flex flex-wrap gap-1.5" role="group" aria-label="Points">
						{#each Array.from({ length: Math.min(10, Math.floor(most) + 1) }, (_, i) => i) as value (value)}
							<Act
								size="xs"
								key={String(value)}
								onclick={() => give(String(value))}
								disabled={busy}
								testid="give-{value}">{value === 1 ? 'point' : 'points'}</Act
							>
						{/each}
					</div>
					<div class="flex items-center gap-2">
						<div class="w-24">
							<Input aria-label="Other points" inputmode="decimal" bind:value={points} placeholder="e.g. 2.5" />
						</div>
						<span class="text-ink-2 text-[14px]">of {most}</span>
					</div>
				{/if}
				<Textarea
					rows={3}
					class="w-full"
					aria-label="Comment"
					placeholder="Comment, for those who mark"
					bind:value={comment}
				/>
				{#if rubric.length > 0 || points !== ''}
					<Act tone="main" key="Enter" disabled={!isWhole} {busy} onclick={() => give(points)} testid="give"
						>Give the mark</Act
					>
				{/if}
				<p class="text-ink-2 text-[13.5px]">
					You do not see whose answer this is, and nobody sees your mark before theirs.
				</p>
			</div>
		</div>
	</article>
{:else}
	<p class="bg-sheet border-line text-ink-2 rounded-2xl border p-10 text-center" data-testid="all-marked">
		Nothing waits for you here.
	</p>
{/if}
{#if work.done.length > 0}
	<details class="mt-4">
		<summary class="cursor-pointer text-[16px]">What you have marked ({work.done.length})</summary>
		<ul class="bg-sheet border-line mt-2 rounded-2xl border">
			{#each work.done as mark (mark.id)}
				<li class="border-line flex items-center gap-3 border-b px-4 py-2 text-[14px] last:border-b-0">
					<span class="font-mono">{mark.label}</span>
					<span class="text-ink-2 min-w-0 flex-1 truncate">{typeof mark.value === 'string' ? mark.value : 'files'}</span
					>
					<strong>{shownPoints(mark.points)} of {most}</strong>
					<span class="text-ink-3 font-mono">{timeAndDate(mark.at, zone, clock.now)}</span>
					<Act size="xs" onclick={() => takeBack(mark.id)}>Take it back</Act>
				</li>
			{/each}
		</ul>
	</details>
{/if}
