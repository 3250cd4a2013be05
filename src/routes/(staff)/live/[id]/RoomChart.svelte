<!-- @component The room over time: who worked, who had finished, how many answers came each minute. -->
<script lang="ts">
	import type { Chart } from 'chart.js';
	import type { ResponseTimes } from '$core/pace';
	import type { CoursePoint } from '$core/room';
	import { clockTime } from '$core/time';
	import { loadChart } from '$ui/chart';
	import { send } from '$ui/post';
	import ResponseTimesChart from './ResponseTimesChart.svelte';
	import type { LiveRoom } from './room.svelte';

	let { room }: { room: LiveRoom } = $props();
	let canvas = $state<HTMLCanvasElement>();
	let points = $state.raw<CoursePoint[] | null>(null);
	let times = $state.raw<ResponseTimes[]>([]);
	let trouble = $state<string | null>(null);
	const AGAIN_MS = 15_000;

	$effect(() => {
		const load = async () => {
			const answer = await send<{ points: CoursePoint[]; times: ResponseTimes[] }>(
				'GET',
				`/live/${room.sessionId}/chart`
			);
			if (answer.ok) ({ points, times } = answer.data);
			trouble = answer.ok ? null : answer.problem.message;
		};
		void load();
		const timer = setInterval(load, AGAIN_MS);
		return () => clearInterval(timer);
	});

	let chart: Chart | null = null;
	$effect(() => {
		const shown = points;
		if (!canvas || !shown || shown.length === 0) return;
		let stopped = false;
		void loadChart(canvas).then(({ Chart, colour }) => {
			if (stopped || !canvas) return;
			const labels = shown.map((point) => clockTime(point.at, room.head.zone));
			const series = [shown.map((p) => p.working), shown.map((p) => p.done), shown.map((p) => p.answers)];
			if (chart) {
				chart.data.labels = labels;
				series.forEach((data, i) => (chart!.data.datasets[i].data = data));
				chart.update('none');
				return;
			}
			const line = { pointRadius: 0, borderWidth: 2.5, stepped: true as const, yAxisID: 'people' };
			chart = new Chart(canvas, {
				type: 'line',
				data: {
					labels,
					datasets: [
						{ ...line, label: 'Working', data: series[0], borderColor: colour('--tide') },
						{ ...line, label: 'Finished', data: series[1], borderColor: colour('--slate'), borderDash: [6, 4] },
						{
							type: 'bar',
							label: 'Answers a minute',
							data: series[2],
							backgroundColor: colour('--ochre-mark'),
							yAxisID: 'answers'
						}
					]
				},
				options: {
					animation: false,
					maintainAspectRatio: false,
					interaction: { mode: 'index', intersect: false },
					scales: {
						x: { ticks: { maxTicksLimit: 12 }, grid: { display: false } },
						people: {
							beginAtZero: true,
							title: { display: true, text: 'candidates' },
							ticks: { precision: 0 },
							grid: { color: colour('--line') }
						},
						answers: {
							position: 'right',
							beginAtZero: true,
							title: { display: true, text: 'answers a minute' },
							ticks: { precision: 0 },
							grid: { display: false }
						}
					}
				}
			});
		});
		return () => (stopped = true);
	});
	$effect(() => () => chart?.destroy());
	const now = $derived(points?.at(-1));
</script>

{#if trouble}<p class="text-brick text-[14px]">{trouble}</p>{/if}
{#if points === null && !trouble}
	<p class="text-ink-3">One moment…</p>
{:else if points?.length === 0}
	<p class="text-ink-3">Nobody has begun yet. The chart starts with the first.</p>
{:else if points}
	<div class="bg-sheet border-line h-[380px] rounded-xl border p-4">
		<canvas bind:this={canvas} aria-label="The room over time" data-testid="chart"></canvas>
	</div>
	<p class="text-ink-2 mt-2 text-[14px]">
		Now {now?.working} working and {now?.done} finished; {points.reduce((sum, point) => sum + point.answers, 0)} answers since
		{clockTime(points[0].at, room.head.zone)}.
	</p>
	<ResponseTimesChart {times} />
{/if}
