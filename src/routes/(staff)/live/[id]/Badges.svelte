<!-- @component Where somebody stands, and what is out of the ordinary about them, in a row of words. -->
<script lang="ts">
	import { isPastTime, stateInWords, tallyKeyOf, type SeatView } from '$core/room';
	import { clockLength } from '$core/time';
	import StateGlyph from '$ui/StateGlyph.svelte';

	let { seat, now }: { seat: SeatView; now: number } = $props();
	const key = $derived(tallyKeyOf(seat));
</script>

<p class="flex flex-wrap gap-2 text-[13px] font-semibold">
	<span class="bg-mist text-tide inline-flex items-center gap-1.5 rounded-full px-2.5 py-0.5">
		<StateGlyph state={key} size={13} />{stateInWords(seat)}{key === 'line_lost'
			? ` ${clockLength(now - seat.line!.since)}`
			: key === 'on_hold'
				? ` ${clockLength(now - seat.since)}`
				: ''}
	</span>
	{#if isPastTime(seat, now)}<span class="bg-ochre-ground text-ochre rounded-full px-2.5 py-0.5"
			>past time {clockLength(now - seat.deadline!)}</span
		>{/if}
	{#if seat.late > 0}<span class="bg-ochre-ground text-ochre rounded-full px-2.5 py-0.5"
			>{seat.late} late {seat.late === 1 ? 'answer' : 'answers'}</span
		>{/if}
	{#if seat.device}<span class="bg-slate-ground text-slate-sea rounded-full px-2.5 py-0.5">{seat.device}</span>{/if}
	{#if seat.battery !== null}<span class="bg-slate-ground text-slate-sea rounded-full px-2.5 py-0.5"
			>battery {Math.round(100 * seat.battery)} %</span
		>{/if}
	{#if seat.extra}<span class="bg-plum-ground text-plum rounded-full px-2.5 py-0.5">{seat.extra}</span>{/if}
</p>
