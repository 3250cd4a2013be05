<!-- @component How long each question was in view, and what the pace of the answers says. -->
<script lang="ts">
	import { SPOILED_SHARE } from '$core/pace';
	import type { CandidateDetails, SeatView } from '$core/room';
	import { clockLength } from '$core/time';

	type Props = {
		questions: CandidateDetails['questions'];
		seat: SeatView;
		/** Questions on the whole paper. */
		of: number;
	};
	let { questions, seat, of }: Props = $props();

	const PACE_WORDS = { calm: 'calm', watch: 'worth a look', hold: 'rushing', spoiled: 'spoiled' };
	const isRapid = (question: Props['questions'][number]) =>
		question.answered && question.inViewMs < question.thresholdMs;
	const longest = $derived(Math.max(1, ...questions.map((question) => question.inViewMs)));
</script>

<div>
	<h3 class="text-[16px]">Question by question</h3>
	<div
		class="mt-1 flex h-12 items-end gap-[2px]"
		role="img"
		aria-label="Time in view for each question; {questions.filter((one) => one.answered).length} answered"
	>
		{#each questions as question (question.number)}
			<span
				class="flex-1 rounded-t-sm {isRapid(question)
					? 'bg-brick'
					: question.answered
						? 'bg-tide'
						: question.inViewMs > 0
							? 'bg-ochre-mark'
							: 'bg-line'}"
				style="height:{Math.max(4, (100 * question.inViewMs) / longest)}%"
				title="{question.number}: {question.answered ? 'answered' : 'not answered'}{question.marked
					? ', marked'
					: ''}, {clockLength(question.inViewMs)} in view{isRapid(question)
					? `: faster than the ${(question.thresholdMs / 1_000).toFixed(1)} s that reading takes`
					: ''}"
			></span>
		{/each}
	</div>
	{#if seat.pace !== 'calm' || seat.rapid > 0}
		<p class="mt-1.5 text-[13.5px] {seat.pace === 'spoiled' ? 'text-brick font-semibold' : 'text-ink-2'}">
			Pace: {PACE_WORDS[seat.pace]}. {seat.rapid} faster than reading takes.
		</p>
		<div class="bg-line relative mt-1 h-2 rounded-full" aria-hidden="true">
			<div
				class="h-full rounded-full {seat.pace === 'spoiled' ? 'bg-brick' : 'bg-ochre-mark'}"
				style="width:{Math.min(100, (100 * seat.rapid) / (of * SPOILED_SHARE))}%"
			></div>
		</div>
		<p class="text-ink-3 text-[12.5px]">
			{Math.round((100 * seat.rapid) / Math.max(1, of))} % of the paper; at {100 * SPOILED_SHARE} % it is spoiled.
		</p>
	{/if}
</div>
