<!-- @component After the end: the receipt, what arrived late, a further attempt, and looking back. -->
<script lang="ts">
	import type { Problem } from '$core/problem';
	import { endedInWords, type SittingPicture } from '$core/room';
	import { clockLength, timeAndDate } from '$core/time';
	import { ask } from '$player/ask';
	import OwnTime from '$ui/OwnTime.svelte';
	import { inWords } from '$ui/post';
	import Calm from './Calm.svelte';
	import Press from './Press.svelte';
	import Trouble from './Trouble.svelte';

	type Props = {
		picture: SittingPicture;
		now: number;
		busy: boolean;
		problem: Problem | null;
		/** Answers that this device had kept and that came after the end. */
		arrivedLate: number;
		/** Why answers were kept without counting; null: none were. */
		keptNote: Problem | null;
		/** Looking back wants the full screen first. */
		isReviewLocked: boolean;
		onagain: () => void;
		onlookback: () => void;
		onleave: () => void;
	};
	let { picture, now, busy, problem, arrivedLate, keptNote, isReviewLocked, onagain, onlookback, onleave }: Props =
		$props();

	const zone = $derived(picture.session.zone);
	let keeping = $state('');
	/** As a file, which says what it is and what can be done with it. */
	async function keep() {
		const answer = await ask<{ receipt: string }>('GET', '/sit/api/receipt');
		if (!answer.ok) return void (keeping = inWords(answer.problem));
		const { paper, candidate, ended } = picture;
		const text = [
			`${paper.title}, handed in by ${candidate.name} (${candidate.number}), receipt ${ended!.receipt}.`,
			`It is signed by Otium. Paste it at ${location.origin}/verify to see whether what is kept is what was handed in.`,
			answer.data.receipt
		].join('\n\n');
		const link = document.createElement('a');
		link.href = URL.createObjectURL(new Blob([text], { type: 'text/plain' }));
		link.download = `receipt-${ended!.receipt}.txt`;
		link.click();
		URL.revokeObjectURL(link.href);
		keeping = 'It is with what this device has downloaded. Take it with you: by mail, or on a stick.';
	}
</script>

<Calm
	title={picture.state === 'handed_in' ? 'Handed in' : 'Time is up'}
	paper={picture.paper.title}
	person={picture.candidate.name}
>
	<p>
		{endedInWords(picture)} at {timeAndDate(picture.ended?.at ?? now, zone, now)}. We have all your answers.
	</p>
	{#if picture.ended?.countsNothing}<p class="font-semibold">
			It was not handed in before time was up, so by the rules of this paper it is not scored. Speak to your proctor if
			your connection or your device was the reason.
		</p>{/if}
	{#if arrivedLate > 0}<p class="bg-ochre-ground text-ochre rounded-xl px-4 py-3 text-[16px]" data-testid="leftovers">
			{arrivedLate === 1 ? 'One answer' : `${arrivedLate} answers`} that this device had kept
			{arrivedLate === 1 ? 'has' : 'have'} arrived now. Your proctor can see this and decides whether they count.
		</p>{/if}
	{#if keptNote}<p class="bg-ochre-ground text-ochre rounded-xl px-4 py-3 text-[16px]">
			{keptNote.message}
			{keptNote.instead}
		</p>{/if}
	<div class="bg-mist rounded-2xl p-5">
		<p class="text-ink-2 text-[15px]">Your receipt</p>
		<p class="text-tide font-mono text-[28px] font-semibold" data-testid="receipt">{picture.ended?.receipt}</p>
		<p class="text-ink-2 text-[15px]">Keep a note of it: it proves your work arrived.</p>
		<p class="mt-3"><Press onclick={keep} testid="keep-receipt">Keep the signed receipt</Press></p>
		{#if keeping}<p class="text-ink-2 mt-2 text-[15px]" role="status">{keeping}</p>{/if}
	</div>
	{#if picture.again}
		{@const { attempt, most, from } = picture.again}
		{#if from === null || now >= from}
			<p>You may sit this paper again. What you have handed in stays as it is.</p>
			<Press main onclick={onagain} disabled={busy} testid="again">Begin attempt {attempt} of {most}</Press>
		{:else}
			<p data-testid="again-from">
				Attempt {attempt} of {most} can begin from {timeAndDate(from, zone, now)}<OwnTime at={from} {zone} />, in {clockLength(
					from - now
				)}.
			</p>
		{/if}
		<Trouble {problem} />
	{/if}
	{#if picture.mayReview && isReviewLocked}
		<Press onclick={onlookback} testid="review-full">See how it went, in full screen</Press>
	{:else if picture.mayReview}{#await import('./Review.svelte') then { default: Review }}<Review />{/await}{/if}
	<Press onclick={onleave}>Clear this device for the next person</Press>
</Calm>
