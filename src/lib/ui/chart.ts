import type { Chart } from 'chart.js';

/** Chart.js, loaded when first asked for, in the colours and the type of the page that the canvas stands on. */
export async function loadChart(
	canvas: HTMLCanvasElement
): Promise<{ Chart: typeof Chart; colour: (name: string) => string }> {
	const { Chart } = await import('chart.js/auto');
	const style = getComputedStyle(canvas);
	const colour = (name: string) => style.getPropertyValue(name).trim();
	Chart.defaults.color = colour('--ink-2');
	Chart.defaults.borderColor = colour('--line');
	Chart.defaults.font.family = style.fontFamily;
	Chart.defaults.font.size = 13;
	return { Chart, colour };
}
