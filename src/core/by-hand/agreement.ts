/** How far two markers agree over the answers that both marked. */
export type Agreement = {
	pairs: number;
	/** The share of equal marks; null: none was marked twice. */
	exact: number | null;
	/** Weighted kappa; null: there is nothing to agree on, as when both always gave the same mark. */
	kappa: number | null;
	/** Mean distance, in points. */
	apart: number | null;
};

/**
 * Agreement beyond chance, by Cohen (1968), with weights that grow with the square of the distance. Of two categories it is
 * Cohen's kappa of 1960.
 * @param pairs what each of two gave to the same answer, in points
 */
export function agreementOf(pairs: readonly (readonly [number, number])[]): Agreement {
	const n = pairs.length;
	if (n === 0) return { pairs: 0, exact: null, kappa: null, apart: null };
	let [observed, exact, apart] = [0, 0, 0];
	for (const [a, b] of pairs) {
		observed += (a - b) ** 2;
		exact += Math.abs(a - b) < 1e-9 ? 1 : 0;
		apart += Math.abs(a - b);
	}
	// By chance each mark of one meets each mark of the other: the mean over all of them, from sums alone.
	const sums = [0, 1].map((i) => pairs.reduce((sum, pair) => sum + pair[i], 0));
	const squares = [0, 1].map((i) => pairs.reduce((sum, pair) => sum + pair[i] ** 2, 0));
	const chance = squares[0] / n + squares[1] / n - (2 * sums[0] * sums[1]) / (n * n);
	return { pairs: n, exact: exact / n, kappa: chance < 1e-12 ? null : 1 - observed / n / chance, apart: apart / n };
}
