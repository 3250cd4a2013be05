<!-- @component Each question by how many had it right and how well it tells the able from the rest; the chosen one is ringed. -->
<script lang="ts">
	import { DOUBTFUL, type QuestionFigures } from '$core/figures';
	import { loadChart } from '$ui/chart';

	type Props = {
		figures: QuestionFigures[];
		nameOf: (id: string) => string;
		chosen: string | null;
		onchoose: (id: string) => void;
	};
	let { figures, nameOf, chosen, onchoose }: Props = $props();
	let canvas = $state<HTMLCanvasElement | null>(null);
	const placed = $derived(
		figures.filter(({ facility, discrimination }) => facility !== null && discrimination !== null)
	);
	const toneOf = ({ flags }: QuestionFigures) =>
		flags.some((flag) => DOUBTFUL.includes(flag)) ? '--brick' : flags.length > 0 ? '--ochre-mark' : '--tide';

	$effect(() => {
		if (!canvas) return;
		const now = placed;
		const ring = chosen;
		let chart: { destroy(): void } | null = null;
		let isGone = false;
		void loadChart(canvas).then(({ Chart, colour }) => {
			if (isGone || !canvas) return;
			chart = new Chart(canvas, {
				type: 'scatter',
				data: {
					datasets: [
						{
							data: now.map(({ facility, discrimination }) => ({ x: facility!, y: discrimination! })),
							pointBackgroundColor: now.map((one) => colour(toneOf(one))),
							pointRadius: now.map((one) => (one.questionId === ring ? 9 : 6.5)),
							pointHoverRadius: 9,
							pointBorderColor: now.map((one) => colour(one.questionId === ring ? '--ink' : '--sheet')),
							pointBorderWidth: now.map((one) => (one.questionId === ring ? 3 : 1))
						}
					]
				},
				options: {
					animation: false,
					maintainAspectRatio: false,
					onClick: (_, hit) => hit.length > 0 && onchoose(now[hit[0].index].questionId),
					scales: {
						x: { min: 0, max: 1, title: { display: true, text: 'share of the points that was reached' } },
						y: {
							suggestedMin: -0.2,
							suggestedMax: 0.7,
							title: { display: true, text: 'agreement with the rest of the paper' },
							grid: { color: (context) => colour(context.tick.value === 0 ? '--line-strong' : '--line') }
						}
					},
					plugins: {
						legend: { display: false },
						tooltip: {
							callbacks: {
								label: ({ dataIndex }) => {
									const one = now[dataIndex];
									return `${nameOf(one.questionId)}: ${Math.round(one.facility! * 100)} % right, ${one.discrimination!.toFixed(2)}`;
								}
							}
						}
					}
				}
			});
		});
		return () => {
			isGone = true;
			chart?.destroy();
		};
	});
</script>

<div style="height:340px"><canvas bind:this={canvas} aria-hidden="true"></canvas></div>
