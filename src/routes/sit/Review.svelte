<!-- @component Looking back, as far as the rules allow. -->
<script lang="ts">
	import { shownPoints } from '$core/results';
	import { blocksOf } from '$core/paper';
	import { answerInWords, type Review } from '$core/review';
	import type { Problem } from '$core/problem';
	import { ask } from '$player/ask';
	import Press from './Press.svelte';
	import Blocks from './question/Blocks.svelte';

	let review = $state.raw<Review | null>(null);
	let problem = $state.raw<Problem | null>(null);
	let busy = $state(false);

	async function look() {
		busy = true;
		const answer = await ask<Review>('GET', '/sit/api/review');
		busy = false;
		problem = answer.ok ? null : answer.problem;
		if (answer.ok) review = answer.data;
	}
	const VERDICTS = {
		right: 'Right',
		partly: 'Partly right',
		wrong: 'Not right',
		blank: 'Left blank',
		to_mark: 'Still to be marked'
	};
</script>

{#if !review}
	<Press onclick={look} disabled={busy} testid="review">See how it went</Press>
	{#if problem}<p class="text-ink-2" role="status">{problem.message} {problem.instead ?? ''}</p>{/if}
{:else}
	<section class="bg-sheet border-line rounded-2xl border p-5" aria-label="How it went">
		<p class="text-[22px] font-semibold" data-testid="score">
			{shownPoints(review.points)} of {shownPoints(review.outOf)} points{review.passed === null
				? ''
				: review.passed
					? ': passed'
					: ': not passed'}
		</p>
		{#if review.band}<p class="text-[17px]" data-testid="band">
				<strong>{review.band.name}.</strong>
				{review.band.message}
			</p>{/if}
		{#if review.toMark > 0}<p class="text-ink-2">
				{review.toMark === 1 ? 'One answer is' : `${review.toMark} answers are`} still to be marked by a person.
			</p>{/if}
		{#if review.questions}
			<ol class="mt-4 space-y-4">
				{#each review.questions as one, i (one.question.id)}
					<li class="border-line border-t pt-3">
						<div class="flex gap-2 font-serif text-[18px]">
							<span>{i + 1}.</span>
							<div class="min-w-0"><Blocks blocks={blocksOf(one.question.stem, one.question.gaps)} gap={blank} /></div>
						</div>
						<p class="mt-1">
							<span class="text-ink-2">You: </span>{answerInWords(one.question, one.given) || 'nothing'}
						</p>
						{#if one.verdict}
							<p class="font-semibold {one.verdict === 'right' ? 'text-tide' : 'text-ochre'}">
								{VERDICTS[one.verdict]}, {shownPoints(one.points ?? 0)} of {one.question.points}
							</p>
							{#if one.verdict !== 'right' && one.right !== null}<p>
									<span class="text-ink-2">Right: </span>{answerInWords(one.question, one.right)}
								</p>{/if}
							{#if one.feedback}<div class="bg-mist mt-1 rounded-lg px-3 py-2">
									<Blocks blocks={blocksOf(one.feedback)} />
								</div>{/if}
						{/if}
					</li>
				{/each}
			</ol>
		{/if}
	</section>
{/if}
{#snippet blank()}<span class="text-ink-3">…</span>{/snippet}
