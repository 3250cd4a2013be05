<!-- @component How the points are spread over topics and difficulties, as a chart and as a table. -->
<script lang="ts">
	import { BALANCE_KEYS, balanceOf, type Paper } from '$core/paper';
	import { loadChart } from '$ui/chart';

	let { paper }: { paper: Paper } = $props();

	/** A paper about one topic is told apart by what is below it. */
	const rows = $derived.by(() => {
		const byTopic = balanceOf(paper);
		return byTopic.length > 1 ? byTopic : balanceOf(paper, 2);
	});
	/** Below a topic that all share, the last step says it. */
	const nameOf = (topic: string) => topic.split(' / ').at(-1) ?? topic;
	const shown = (points: number) => (points === 0 ? '' : Number(points.toFixed(1)).toString());
	const COLOURS = { easy: '--tide', medium: '--ochre', hard: '--brick', unknown: '--line-strong' };
	let canvas = $state<HTMLCanvasElement | null>(null);
	$effect(() => {
		if (!canvas) return;
		const now = rows;
		let chart: { destroy(): void } | null = null;
		let isGone = false;
		void loadChart(canvas).then(({ Chart, colour }) => {
			if (isGone || !canvas) return;
			chart = new Chart(canvas, {
				type: 'bar',
				data: {
					labels: now.map(({ topic }) => nameOf(topic)),
					datasets: BALANCE_KEYS.map((key) => ({
						label: key === 'unknown' ? 'not said' : key,
						data: now.map(({ points }) => points[key]),
						backgroundColor: colour(COLOURS[key])
					}))
				},
				options: {
					indexAxis: 'y',
					animation: false,
					maintainAspectRatio: false,
					scales: { x: { stacked: true }, y: { stacked: true } },
					plugins: { legend: { position: 'bottom', labels: { boxWidth: 12 } } }
				}
			});
		});
		return () => {
			isGone = true;
			chart?.destroy();
		};
	});
</script>

<div class="bg-sheet text-ink mt-1.5 rounded-xl p-3">
	<div style="height:{110 + 40 * rows.length}px"><canvas bind:this={canvas} aria-hidden="true"></canvas></div>
	<table class="mt-2 w-full text-[13px]" data-testid="balance">
		<thead>
			<tr class="text-ink-2 text-left">
				<th scope="col">Points</th>
				{#each BALANCE_KEYS as key (key)}<th scope="col" class="pl-2 text-right"
						>{key === 'unknown' ? 'not said' : key}</th
					>{/each}
			</tr>
		</thead>
		<tbody>
			{#each rows as { topic, points } (topic)}
				<tr>
					<th scope="row" class="text-left font-normal">{nameOf(topic)}</th>
					{#each BALANCE_KEYS as key (key)}<td class="pl-2 text-right">{shown(points[key])}</td>{/each}
				</tr>
			{/each}
		</tbody>
	</table>
</div>
