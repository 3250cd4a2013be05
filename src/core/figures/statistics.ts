/** Arithmetic mean; null of nothing. */
export function mean(values: number[]): number | null {
	return values.length === 0 ? null : values.reduce((sum, value) => sum + value, 0) / values.length;
}

/** Population variance: the mean squared distance from the mean. null of nothing. */
export function variance(values: number[]): number | null {
	const middle = mean(values);
	return middle === null ? null : mean(values.map((value) => (value - middle) ** 2));
}

/** The middle value, of an even number the mean of the two in the middle; null of nothing. */
export function median(values: number[]): number | null {
	if (values.length === 0) return null;
	const sorted = [...values].sort((a, b) => a - b);
	const half = sorted.length >> 1;
	return sorted.length % 2 === 1 ? sorted[half] : (sorted[half - 1] + sorted[half]) / 2;
}

/** Pearson's product-moment correlation of pairs; null where one of the two does not vary. */
export function correlation(pairs: readonly (readonly [number, number])[]): number | null {
	const n = pairs.length;
	if (n < 2) return null;
	const [mx, my] = [0, 1].map((i) => pairs.reduce((sum, pair) => sum + pair[i], 0) / n);
	let [xx, yy, xy] = [0, 0, 0];
	for (const [x, y] of pairs) {
		xx += (x - mx) ** 2;
		yy += (y - my) ** 2;
		xy += (x - mx) * (y - my);
	}
	// What varies by rounding alone does not vary.
	return xx < 1e-12 * n || yy < 1e-12 * n ? null : xy / Math.sqrt(xx * yy);
}

/**
 * Cronbach's alpha (1951): k/(k−1) · (1 − Σ var(item) / var(total)); on right and wrong answers it is KR-20. null: fewer
 * than two items or people, or the totals do not vary.
 * @param rows one for each person, with the points of each item, all of the same length
 */
export function cronbachAlpha(rows: number[][]): number | null {
	const items = rows[0]?.length ?? 0;
	if (items < 2 || rows.length < 2) return null;
	const total = variance(rows.map((row) => row.reduce((sum, points) => sum + points, 0)))!;
	if (total < 1e-12) return null;
	let ofItems = 0;
	for (let item = 0; item < items; item++) ofItems += variance(rows.map((row) => row[item]))!;
	return (items / (items - 1)) * (1 - ofItems / total);
}

/** By how much a score may lie beside the true one: σ√(1 − α). In points. */
export function standardError(deviation: number, alpha: number): number {
	return deviation * Math.sqrt(1 - Math.min(1, alpha));
}
