<!-- @component A seat of a room too wide for cards: the state as a shape, the seat's name, and the rest on asking. -->
<script lang="ts">
	import { tallyKeyOf, type Progress, type SeatView } from '$core/room';
	import { STATE_NAMES } from '$core/sitting';
	import StateGlyph from '$ui/StateGlyph.svelte';
	import { seatMark, seatTone } from './seat-look';

	type Props = {
		seat: SeatView;
		questions: number;
		progress: Progress | null;
		isFocus: boolean;
		isSelected: boolean;
		isMasked: boolean;
		onfocus: () => void;
		onselect: () => void;
		onopen: () => void;
	};
	let { seat, questions, progress, isFocus, isSelected, isMasked, onfocus, onselect, onopen }: Props = $props();

	const key = $derived(tallyKeyOf(seat));
	const mark = $derived(seatMark(seat, progress));
	const words = $derived(
		[
			isMasked ? seat.number : `${seat.name}, ${seat.number}`,
			seat.seat ?? (seat.elsewhere ? 'elsewhere' : null),
			key === 'line_lost' ? 'Line lost' : STATE_NAMES[seat.state],
			seat.begun ? `${seat.answered} of ${questions}` : null,
			mark?.text
		]
			.filter(Boolean)
			.join(' · ')
	);
</script>

<button
	type="button"
	class="relative grid h-11 place-items-center rounded-lg border pt-0.5 {seatTone(seat)} {isFocus
		? 'outline-tide outline-[2.5px]'
		: ''} {isSelected ? 'ring-tide ring-2 ring-inset' : ''}"
	aria-pressed={isSelected}
	aria-label={words}
	title={words}
	data-seat={seat.id}
	onclick={(event) => (event.ctrlKey || event.metaKey || event.shiftKey ? onselect() : onopen())}
	{onfocus}
>
	<StateGlyph state={key} size={15} />
	<span class="text-ink-2 font-mono text-[10.5px] leading-none">{seat.seat ?? ''}</span>
	{#if mark}<span class="absolute -top-1 -right-1 h-2.5 w-2.5 rounded-full bg-current {mark.ink}"></span>{/if}
</button>
