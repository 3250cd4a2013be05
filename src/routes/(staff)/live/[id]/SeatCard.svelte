<script lang="ts">
	import { remainingNow, tallyKeyOf, type Progress, type SeatView } from '$core/room';
	import { STATE_NAMES } from '$core/sitting';
	import { clockTime, minutesLeft } from '$core/time';
	import StateGlyph from '$ui/StateGlyph.svelte';
	import { seatMark, seatTone } from './seat-look';

	type Props = {
		seat: SeatView;
		questions: number;
		zone: string;
		now: number;
		progress: Progress | null;
		isFocus: boolean;
		isSelected: boolean;
		isMasked: boolean;
		/** More than six seats a row: words are shortened, since the glyph tells the state. */
		isTight: boolean;
		onfocus: () => void;
		onselect: () => void;
		onopen: () => void;
	};
	let {
		seat,
		questions,
		zone,
		now,
		progress,
		isFocus,
		isSelected,
		isMasked,
		isTight,
		onfocus,
		onselect,
		onopen
	}: Props = $props();

	const key = $derived(tallyKeyOf(seat));
	const remaining = $derived(remainingNow(seat, now));
	const mark = $derived(seatMark(seat, progress));
	const line = $derived.by(() => {
		if (key === 'working') return isTight ? `${seat.answered}/${questions}` : `${seat.answered} of ${questions}`;
		if (isTight && key === 'handed_in') return 'Done';
		if (key === 'line_lost') return `${isTight ? 'Lost' : 'Line lost'} ${minutesLeft(now - seat.line!.since)}′`;
		if (key === 'on_hold') return `${isTight ? 'Hold' : 'On hold'} ${minutesLeft(now - seat.since)}′`;
		return STATE_NAMES[seat.state];
	});
	const endedAt = $derived(key === 'handed_in' || key === 'time_up' ? clockTime(seat.since, zone) : null);
	const showsTime = $derived(remaining !== null && ['working', 'line_lost', 'on_hold'].includes(key));
</script>

<button
	type="button"
	class="seat relative flex flex-col justify-start rounded-xl border px-2.5 py-2 text-left {seatTone(seat)} {isFocus
		? 'outline-tide outline-[2.5px]'
		: ''} {isSelected ? 'ring-tide ring-2 ring-inset' : ''}"
	aria-pressed={isSelected}
	data-seat={seat.id}
	onclick={(event) => (event.ctrlKey || event.metaKey || event.shiftKey ? onselect() : onopen())}
	{onfocus}
>
	<span class="flex items-center gap-1.5">
		<StateGlyph state={key} size={14} />
		<span class="sr-only">{STATE_NAMES[seat.state]}</span>
		<span class="text-ink-3 font-mono text-[12px]">{seat.seat ?? ''}</span>
		<span class="ml-auto flex items-center gap-1.5 text-[12.5px]">
			<!-- There is room for one: what is worth a look now goes before what somebody has all day. -->
			{#if seat.extra && (!mark || isTight)}<span class="text-plum font-semibold whitespace-nowrap">{seat.extra}</span
				>{/if}
			{#if mark && !isTight}<span class="rounded-full px-1 font-semibold whitespace-nowrap {mark.ground} {mark.ink}"
					>{mark.text}</span
				>{/if}
			{#if mark && isTight}<span
					class="inline-block h-2.5 w-2.5 shrink-0 rounded-full bg-current {mark.ink}"
					title={mark.text}><span class="sr-only">{mark.text}</span></span
				>{/if}
			{#if isSelected}<span class="text-tide font-bold">✓</span>{/if}
		</span>
	</span>
	<span class="mt-1 line-clamp-2 text-[13.5px] leading-tight font-semibold break-words"
		>{isMasked ? seat.number : seat.name}</span
	>
	<span
		class="ticks my-1.5 block h-[7px]"
		data-bar
		style="--done:{questions === 0 ? 0 : (100 * seat.answered) / questions}%;--step:{100 / Math.max(1, questions)}%"
	></span>
	<span class="text-ink-2 flex items-baseline gap-1 text-[12.5px] leading-tight">
		<span class="truncate">{line}</span>
		{#if endedAt}<span class="ml-auto">{endedAt}</span>{/if}
		{#if showsTime}<span class="ml-auto">{minutesLeft(remaining!)}′<span class="sr-only"> left</span></span>{/if}
	</span>
</button>

<style>
	.seat {
		content-visibility: auto;
		contain-intrinsic-size: auto 88px;
	}
	/* One tick a question; those answered are filled. The gaps take the card's own ground. */
	.ticks {
		background: linear-gradient(90deg, var(--tide) var(--done), var(--line) var(--done));
		mask: repeating-linear-gradient(90deg, #000 0 calc(var(--step) - 1.5px), transparent 0 var(--step));
	}
</style>
