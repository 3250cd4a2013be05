<!-- @component What stays at the top of a paper: what it is, whether it is saved, and the time. -->
<script lang="ts">
	import { clockLength, clockTime, minutesLeft, timeAndDate } from '$core/time';
	import type { Line } from '$player/line.svelte';
	import type { Paper } from '$player/paper.svelte';
	import type { QuestionLeft } from '$player/question-left.svelte';
	import type { TimeLeft } from '$player/time-left.svelte';
	import type { ServerClock } from '$ui/server-clock.svelte';
	import OwnPhoto from './OwnPhoto.svelte';
	import OwnTime from '$ui/OwnTime.svelte';

	type Props = { paper: Paper; line: Line; time: TimeLeft; each: QuestionLeft; clock: ServerClock; isCalm: boolean };
	let { paper, line, time, each, clock, isCalm }: Props = $props();

	const picture = $derived(line.picture);
	const zone = $derived(picture.session.zone);
	/** Whether everything is saved, in words; `calm`: nobody has to read it. */
	const saved = $derived.by(() => {
		const { waiting, savedAt, trouble, aside, isDurable } = paper.outbox;
		if (aside.length > 0) {
			const numbers = aside.map(({ questionId }) => paper.order.indexOf(questionId) + 1);
			return {
				calm: false,
				text: `The answer to question ${numbers.join(', ')} could not be saved. Enter it again, or tell your proctor.`
			};
		}
		if (waiting > 0 && !isDurable)
			return { calm: false, text: 'Not saved yet, and this browser cannot keep answers: leave this page open.' };
		if (waiting > 0 && (trouble || line.downSince))
			return {
				calm: false,
				text: `Not saved yet: ${waiting === 1 ? '1 answer is' : `${waiting} answers are`} kept here. Just keep working.`
			};
		if (line.downSince) return { calm: false, text: 'Connection lost. Just keep working: your answers are kept here.' };
		if (waiting > 0) return { calm: true, text: 'Saving…' };
		return { calm: true, text: savedAt === null ? 'Saved as you go' : `Saved ${clockTime(savedAt, zone, true)}` };
	});
	let wasTrouble = $state(false);
	$effect(() => {
		if (!saved.calm) wasTrouble = true;
	});
</script>

<header
	class="bg-sheet border-line flex flex-wrap items-center gap-x-4 gap-y-1 border-b px-6 py-2 max-sm:flex-nowrap max-sm:gap-x-2 max-sm:px-3 max-sm:py-1"
>
	{#if picture.session.showsPhoto}<OwnPhoto name={picture.candidate.name} />{/if}
	<p class="min-w-0 max-sm:truncate max-sm:leading-tight">
		<strong class="font-serif text-[19px] max-sm:text-[16px]">{picture.paper.title}</strong>
		<span class="text-ink-2 text-[15px] max-sm:block max-sm:truncate max-sm:text-[12px]"
			>{picture.candidate.name}{picture.candidate.seat ? ` · ${picture.candidate.seat}` : ''}</span
		>
	</p>
	<p
		class="ml-auto text-[15px] max-sm:text-[13px] max-sm:leading-tight {saved.calm
			? 'text-tide'
			: 'bg-ochre-ground text-ochre rounded-lg px-3 py-1 font-semibold'}"
		data-testid="saved"
	>
		{saved.text}
	</p>
	<!-- Saving is silent unless it fails, and says so when it is well again. -->
	<span class="sr-only" role="status">{saved.calm ? (wasTrouble ? 'Everything is saved again.' : '') : saved.text}</span
	>
	{#if each.remaining !== null && (!isCalm || each.isShort)}
		<p
			class="rounded-lg px-2 text-right leading-tight whitespace-nowrap {each.isShort
				? 'bg-ochre-ground text-ochre'
				: ''}"
			data-testid="question-time"
		>
			<span class="block font-mono text-[22px] max-sm:text-[17px] font-semibold tabular-nums"
				>{clockLength(each.remaining)}</span
			>
			<span class="{each.isShort ? '' : 'text-ink-2'} block text-[13px]">this question</span>
		</p>
		<span class="sr-only" role="status">{each.isShort ? 'Ten seconds left for this question.' : ''}</span>
	{/if}
	{#if isCalm && !time.isUp}
		<!-- Warnings come all the same. -->
	{:else if picture.time.isEndedByHand && picture.time.since !== null}
		<p class="text-right leading-tight whitespace-nowrap" data-testid="time-gone">
			<span class="block font-mono text-[22px] font-semibold tabular-nums max-sm:text-[17px]"
				>{minutesLeft(Math.max(0, clock.now - picture.time.since))} min</span
			>
			<span class="text-ink-2 block text-[13px]"
				>since you began · {picture.time.plannedEnd === null
					? 'your proctor ends it'
					: `planned until ${timeAndDate(picture.time.plannedEnd, zone, clock.now)}`}</span
			>
		</p>
	{:else if time.remaining !== null}
		<p class="text-right leading-tight whitespace-nowrap" data-testid="time">
			<span class="block font-mono text-[22px] max-sm:text-[17px] font-semibold tabular-nums"
				>{time.remaining > 120_000 ? `${minutesLeft(time.remaining)} min` : clockLength(time.remaining)}</span
			>
			{#if picture.time.deadline !== null && !picture.time.standing && !time.isUp}<span
					class="text-ink-2 block text-[13px]"
					>finish by {timeAndDate(picture.time.deadline, zone, picture.time.deadline - time.remaining)}<span
						class="max-sm:block"><OwnTime at={picture.time.deadline} {zone} /></span
					></span
				>{/if}
		</p>
	{/if}
</header>
