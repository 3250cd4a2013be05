<!-- @component One person's day on a line: everyone's window, their own, when they work, and what else they have to be at. -->
<script lang="ts">
	import { clockTime } from '$core/time';

	type Span = { from: number; to: number };
	type Props = {
		span: Span;
		zone: string;
		base: { opens: number; closes: number | null };
		own: { opens: number; closes: number | null } | null;
		work: { from: number; to: number | null };
		commitments?: (Span & { title: string })[];
		/** When the rooms may be used; what is outside is shaded. */
		hours?: Span | null;
		/** The work does not fit. */
		isShort?: boolean;
	};
	let { span, zone, base, own, work, commitments = [], hours = null, isShort = false }: Props = $props();

	const place = (from: number, to: number) => {
		const [a, b] = [Math.max(from, span.from), Math.min(to, span.to)];
		const share = (at: number) => (100 * (at - span.from)) / (span.to - span.from);
		return b <= a ? 'display:none' : `left:${share(a)}%;width:${share(b) - share(a)}%`;
	};
	const clock = (at: number) => clockTime(at, zone);
	const words = $derived(
		[
			`everyone ${clock(base.opens)}${base.closes ? ` to ${clock(base.closes)}` : ''}`,
			own ? `own window ${clock(own.opens)}${own.closes ? ` to ${clock(own.closes)}` : ''}` : '',
			`at work ${clock(work.from)}${work.to ? ` to ${clock(work.to)}` : ''}`,
			...commitments.map((one) => `${one.title} ${clock(one.from)} to ${clock(one.to)}`)
		]
			.filter(Boolean)
			.join('; ')
	);
</script>

<div class="relative h-6" role="img" aria-label={words}>
	{#if hours}
		<span class="bg-line/60 absolute inset-y-0" style={place(span.from, hours.from)}></span>
		<span class="bg-line/60 absolute inset-y-0" style={place(hours.to, span.to)}></span>
	{/if}
	<span
		class="border-ink-3 absolute top-1 h-4 rounded border border-dashed"
		style={place(base.opens, base.closes ?? work.to ?? span.to)}
	></span>
	{#if own}<span
			class="bg-plum/25 border-plum absolute top-0.5 h-5 rounded border"
			style={place(own.opens, own.closes ?? span.to)}
		></span>{/if}
	<span
		class="absolute top-[10px] h-1.5 rounded-full {isShort ? 'bg-brick' : 'bg-plum'}"
		style={place(work.from, work.to ?? span.to)}
	></span>
	{#each commitments as one (`${one.from} ${one.title}`)}
		<span
			class="hatched border-brick/50 absolute top-1 h-4 rounded-sm border"
			style={place(one.from, one.to)}
			title={one.title}
		></span>
	{/each}
</div>

<style>
	.hatched {
		background: repeating-linear-gradient(
			-45deg,
			color-mix(in srgb, var(--brick) 30%, transparent) 0 4px,
			transparent 4px 8px
		);
	}
</style>
