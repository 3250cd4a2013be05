/** How alike two candidates' questions are who are each dealt `take` of a pool of `of`. */
export type PoolStrength = {
	take: number;
	of: number;
	/** How many questions two of them share on average: take² / of. */
	mean: number;
	/** `exactly[i]`: the chance that they share exactly i, from 0 to `take`. */
	exactly: number[];
};

/**
 * The hypergeometric distribution: one has `take` of `of`, the other draws `take` without putting back (Feller, An
 * Introduction to Probability Theory, II.6). Built from the ratio of neighbouring terms, so that nothing overflows.
 * @throws RangeError unless 0 ≤ take ≤ of
 */
export function poolStrength(take: number, of: number): PoolStrength {
	if (!Number.isInteger(take) || !Number.isInteger(of) || take < 0 || take > of)
		throw new RangeError(`${take} of ${of} can’t be dealt.`);
	const least = Math.max(0, 2 * take - of);
	// Terms are held relative to the likeliest one, or thousands of them would vanish.
	const logs: number[] = [];
	let log = 0;
	for (let shared = least; shared <= take; shared++) {
		logs.push(log);
		log += 2 * Math.log(take - shared) - Math.log(shared + 1) - Math.log(of - 2 * take + shared + 1);
	}
	const highest = Math.max(...logs);
	const terms = logs.map((one) => Math.exp(one - highest));
	const sum = terms.reduce((total, one) => total + one, 0);
	const exactly = [...Array<number>(least).fill(0), ...terms.map((one) => one / sum)];
	return { take, of, mean: of === 0 ? 0 : (take * take) / of, exactly };
}

/** The chance that two of them share at least so many. */
export function chanceOfAtLeast({ exactly }: PoolStrength, shared: number): number {
	return exactly.slice(Math.max(0, shared)).reduce((total, one) => total + one, 0);
}

/** How large a pool has to be for two candidates to share no more than so many on average. @param mean above 0 */
export function poolFor(take: number, mean: number): number {
	return Math.max(take, Math.ceil((take * take) / mean - 1e-9));
}

/** Several draws at once, as strata of a pool or the pools of a paper: how many questions are shared over all of them. */
export function sharedOverAll(pools: readonly PoolStrength[]): number[] {
	return pools.reduce<number[]>(
		(sofar, { exactly }) => {
			const both = Array<number>(sofar.length + exactly.length - 1).fill(0);
			sofar.forEach((a, i) => exactly.forEach((b, j) => (both[i + j] += a * b)));
			return both;
		},
		[1]
	);
}
