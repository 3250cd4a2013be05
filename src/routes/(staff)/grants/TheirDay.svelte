<!-- @component The day of one person around their sitting: what it takes, and what else they have to do. -->
<script lang="ts">
	import type { Foreseen } from '$core/grants';
	import { clockTime, HOUR, timeAndDate } from '$core/time';
	import { getClock } from '$ui/clock-context';
	import DayLine from './DayLine.svelte';

	/** `isShort`: their time does not fit. */
	let { look, isShort }: { look: NonNullable<Foreseen['look']>; isShort: boolean } = $props();
	const clock = getClock();

	const span = $derived.by(() => {
		const edges = [
			look.own?.opens ?? look.base.opens,
			look.work.from,
			look.own?.closes ?? look.base.closes ?? 0,
			look.work.to ?? 0
		];
		const near = look.commitments.filter(
			(one) => one.from < Math.max(...edges) + 2 * HOUR && one.to > edges[0] - 2 * HOUR
		);
		const all = [...edges.filter((edge) => edge > 0), ...near.flatMap((one) => [one.from, one.to])];
		return { from: Math.floor(Math.min(...all) / HOUR) * HOUR, to: Math.ceil(Math.max(...all) / HOUR) * HOUR };
	});
</script>

<div class="mt-3">
	<div class="text-ink-3 flex justify-between font-mono text-[12px]" aria-hidden="true">
		<span>{clockTime(span.from, look.zone)}</span><span>{clockTime(span.to, look.zone)}</span>
	</div>
	<DayLine
		{span}
		zone={look.zone}
		base={look.base}
		own={look.own}
		work={look.work}
		commitments={look.commitments}
		hours={look.hours}
		{isShort}
	/>
	{#if look.commitments.length > 0}<p class="text-ink-3 mt-1 text-[13px]">
			{look.commitments
				.slice(0, 3)
				.map((one) => `${one.title} ${timeAndDate(one.from, look.zone, clock.now)}`)
				.join(' · ')}
		</p>{/if}
</div>
