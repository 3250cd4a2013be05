<!-- @component A result as its candidate reads it: what it came to and why, without questions and keys. -->
<script lang="ts">
	import { longDate } from '$core/time';
	import type { OwnResult } from '$lib/server/results';

	let { result, now }: { result: OwnResult; now: number } = $props();
</script>

<article class="border-line bg-sheet rounded-2xl border px-5 py-4" data-testid="own-result">
	<h3 class="text-[18px]">{result.paper}{result.attempt > 1 ? `, attempt ${result.attempt}` : ''}</h3>
	<p class="text-ink-2 text-[14.5px]">
		{longDate(result.endedAt, 'UTC', now)} · {result.isFinal ? 'final' : 'preliminary: it may still change'}
	</p>
	{#if result.points}
		<p class="mt-3 text-[22px]">
			<strong>{result.points.points}</strong> of {result.points.outOf} points
			<span class="text-ink-2 text-[17px]">({result.points.percent})</span>
		</p>
	{/if}
	{#if result.band || result.passed !== null}
		<p class="mt-1 text-[17px]">
			{#if result.band}<strong>{result.band.name}</strong>{/if}
			{#if result.passed !== null}<span class={result.passed ? 'text-tide font-semibold' : 'font-semibold'}
					>{result.passed ? 'Passed' : 'Not passed'}</span
				>{/if}
		</p>
		{#if result.band?.message}<p class="mt-1">{result.band.message}</p>{/if}
	{/if}
	{#if result.topics}
		<table class="mt-3 w-full text-[15px]">
			<thead
				><tr class="text-ink-2 text-left text-[13.5px]"
					><th scope="col" class="font-normal">Topic</th><th scope="col" class="text-right font-normal">Points</th><th
						scope="col"><span class="sr-only">Credit</span></th
					></tr
				></thead
			>
			<tbody>
				{#each result.topics as topic (topic.topic)}
					<tr class="border-line border-t"
						><th scope="row" class="py-1.5 text-left font-normal">{topic.topic}</th><td class="text-right font-mono"
							>{topic.points} of {topic.outOf}</td
						><td class="text-tide pl-3 text-right">{topic.isCredited ? 'credited' : ''}</td></tr
					>
				{/each}
			</tbody>
		</table>
	{/if}
	{#if result.counted}<p class="mt-2">{result.counted}</p>{/if}
	{#each result.notes as note, i (i)}<p class="text-ink-2 mt-2 text-[14.5px]">{note}</p>{/each}
</article>
