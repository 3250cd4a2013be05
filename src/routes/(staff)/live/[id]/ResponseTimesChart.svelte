<!-- @component How long each question took: the middle half of the room as a bar, the median in it, and what reading takes. -->
<script lang="ts">
	import { counted } from '$core/names';
	import type { Chart } from 'chart.js';
	import type { ResponseTimes } from '$core/pace';
	import { loadChart } from '$ui/chart';
	import { clockLength } from '$core/time';

	let { times }: { times: ResponseTimes[] } = $props();
	let canvas = $state<HTMLCanvasElement>();
	let chart: Chart | null = null;

	const seconds = (ms: number) => Math.round(ms / 100) / 10;
	const longest = $derived(times.reduce((one, other) => (other.median > one.median ? other : one), times[0]));
	const rapid = $derived(times.filter((one) => one.rapid > 0));
	const nameOf = (one: ResponseTimes) => `question ${times.indexOf(one) + 1}`;

	$effect(() => {
		const shown = times;
		if (!canvas || shown.length === 0) return;
		let stopped = false;
		void loadChart(canvas).then(({ Chart, colour }) => {
			if (stopped || !canvas) return;
			const labels = shown.map((_, i) => String(i + 1));
			const series = [
				shown.map((one) => seconds(one.median)),
				shown.map((one) => seconds(one.thresholdMs)),
				shown.map((one): [number, number] => [seconds(one.lower), seconds(one.upper)])
			];
			if (chart) {
				chart.data.labels = labels;
				series.forEach((data, i) => (chart!.data.datasets[i].data = data));
				chart.update('none');
				return;
			}
			chart = new Chart(canvas, {
				type: 'bar',
				data: {
					labels,
					datasets: [
						{
							type: 'line',
							label: 'Median',
							data: series[0] as number[],
							showLine: false,
							pointStyle: 'rectRot',
							pointRadius: 5,
							backgroundColor: colour('--sheet'),
							borderColor: colour('--plum'),
							borderWidth: 2
						},
						{
							type: 'line',
							label: 'What reading takes',
							data: series[1] as number[],
							pointRadius: 0,
							pointStyle: 'line',
							stepped: 'middle',
							borderWidth: 2,
							borderDash: [5, 4],
							borderColor: colour('--brick')
						},
						{ label: 'Middle half of the room', pointStyle: 'rect', data: series[2], backgroundColor: colour('--tide') }
					]
				},
				options: {
					animation: false,
					maintainAspectRatio: false,
					interaction: { mode: 'index', intersect: false },
					plugins: {
						legend: { labels: { usePointStyle: true } },
						tooltip: {
							callbacks: {
								afterBody: ([item]) => {
									const one = shown[item.dataIndex];
									return `${counted(one.answers, 'answer')}, ${one.rapid} faster than reading takes`;
								}
							}
						}
					},
					scales: {
						x: { title: { display: true, text: 'question of the paper' }, grid: { display: false } },
						y: {
							beginAtZero: true,
							title: { display: true, text: 'seconds in view' },
							grid: { color: colour('--line') }
						}
					}
				}
			});
		});
		return () => (stopped = true);
	});
	$effect(() => () => chart?.destroy());
</script>

<h3 class="mt-5 mb-2 text-[17px]">How long each question takes</h3>
{#if times.length === 0}
	<p class="text-ink-3">No question has been answered yet.</p>
{:else}
	<div class="bg-sheet border-line h-[300px] rounded-xl border p-4">
		<canvas bind:this={canvas} aria-label="Response times by question" data-testid="response-times"></canvas>
	</div>
	<p class="text-ink-2 mt-2 text-[14px]">
		Longest is {nameOf(longest)}: half of {longest.answers} needed more than {clockLength(longest.median)}.
		{#if rapid.length > 0}Faster than reading takes: {rapid
				.map((one) => `${one.rapid} of ${one.answers} at ${nameOf(one)}`)
				.join(', ')}.{:else}Nobody answered faster than reading takes.{/if}
	</p>
{/if}
