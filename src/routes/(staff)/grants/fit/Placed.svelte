<!--
@component Somebody's window in the plan, on the line of the day: dragged, or moved with the arrow keys, by five minutes.
-->
<script lang="ts">
	import type { Place } from '$core/optimal';
	import { clockTime, MINUTE } from '$core/time';

	type Span = { from: number; to: number };
	type Props = {
		place: Place;
		name: string;
		span: Span;
		zone: string;
		base: { opens: number; closes: number | null };
		commitments: (Span & { title: string })[];
		isWrong: boolean;
		onmove: (by: number) => void;
	};
	let { place, name, span, zone, base, commitments, isWrong, onmove }: Props = $props();

	const STEP = 5 * MINUTE;
	let line = $state<HTMLElement | null>(null);
	/** Where it was taken hold of, and how far it has been dragged since. */
	let held = $state<{ x: number } | null>(null);
	let dragged = $state(0);
	const at = (from: number, to: number) => {
		const share = (one: number) => Math.min(100, Math.max(0, (100 * (one - span.from)) / (span.to - span.from)));
		return `left:${share(from)}%;width:${share(to) - share(from)}%`;
	};
	const shown = $derived({ opens: place.opens + dragged, closes: place.closes + dragged });

	function onpointermove(event: PointerEvent) {
		if (!held || !line) return;
		const ms = ((event.clientX - held.x) / line.clientWidth) * (span.to - span.from);
		dragged = Math.round(ms / STEP) * STEP;
	}
	function drop() {
		if (held && dragged !== 0) onmove(dragged);
		held = null;
		dragged = 0;
	}
	function onkeydown(event: KeyboardEvent) {
		const by = { ArrowLeft: -STEP, ArrowRight: STEP }[event.key];
		if (by === undefined) return;
		event.preventDefault();
		onmove(by * (event.shiftKey ? 3 : 1));
	}
</script>

<svelte:window {onpointermove} onpointerup={drop} />
<div class="relative h-7" bind:this={line}>
	<span
		class="border-ink-3 absolute top-1.5 h-4 rounded border border-dashed"
		style={at(base.opens, base.closes ?? base.opens + 60 * MINUTE)}
	></span>
	{#each commitments.filter((one) => one.from < span.to && one.to > span.from) as one (`${one.from} ${one.title}`)}
		<span
			class="bg-brick-ground border-brick/50 absolute top-1.5 h-4 rounded-sm border"
			style={at(one.from, one.to)}
			title={one.title}
		></span>
	{/each}
	<div
		role="slider"
		tabindex="0"
		aria-label="{name}’s window"
		aria-valuenow={Math.round((shown.opens - span.from) / MINUTE)}
		aria-valuemin={0}
		aria-valuemax={Math.round((span.to - span.from) / MINUTE)}
		aria-valuetext="{clockTime(shown.opens, zone)} to {clockTime(shown.closes, zone)}"
		class="absolute top-0.5 h-6 cursor-ew-resize touch-none rounded border {isWrong
			? 'border-brick bg-brick/25'
			: 'border-plum bg-plum/30'}"
		style={at(shown.opens, shown.closes)}
		onpointerdown={(event) => {
			held = { x: event.clientX };
			event.preventDefault();
			(event.currentTarget as HTMLElement).focus();
		}}
		{onkeydown}
	></div>
</div>
