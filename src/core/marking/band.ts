import { exact } from './exact';

/** From so many per cent of the points on: what the result is called, and what the candidate is told with it. */
export type Band = { fromPercent: number; name: string; message: string };

/** A score; `asBefore`: closed before points were exact (see `MarkingSoFar`). */
type Reach = { points: number; outOf: number; asBefore?: boolean };

/** Whether a score reaches so many per cent: at the mark itself as well, and without rounding. */
export function reachesPercent({ points, outOf, asBefore }: Reach, percent: number): boolean {
	if (asBefore) return points * 100 >= percent * outOf;
	return (
		exact(points)
			.mul(100)
			.compare(exact(outOf).mul(exact(percent))) >= 0
	);
}

/**
 * The band that a score is in: the highest whose mark it reaches, at the mark itself as well. null: it reaches none.
 * @param bands in any order
 */
export function bandOf(bands: Band[], score: Reach): Band | null {
	const reached = bands.filter((band) => reachesPercent(score, band.fromPercent));
	return reached.reduce<Band | null>((best, one) => (best && best.fromPercent >= one.fromPercent ? best : one), null);
}

/** Bands as they are entered, a line each: `80 Merit: Well done.` The message may be missing. */
export function bandsAsText(bands: (Band | string)[]): string {
	return bands
		.map((band) =>
			typeof band === 'string' ? band : `${band.fromPercent} ${band.name}${band.message ? `: ${band.message}` : ''}`
		)
		.join('\n');
}

/** Reads them back; what no line can be made of stays text, so that its fault can be told. */
export function readBands(text: string): (Band | string)[] {
	return text
		.split('\n')
		.map((line) => line.trim())
		.filter(Boolean)
		.map((line) => {
			const read = /^(\d{1,3})\s*%?\s+([^:]+?)\s*(?::\s*(.*))?$/.exec(line);
			return read ? { fromPercent: Number(read[1]), name: read[2], message: read[3] ?? '' } : line;
		});
}
