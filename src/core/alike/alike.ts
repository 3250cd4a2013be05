/** What a candidate answered: of each question the answer as text, and whether it was right. Blanks are left out. */
export type Answered = { sittingId: string; answers: Map<string, { value: string; isRight: boolean }> };

/** Two candidates whose answers agree more than chance explains. */
export type AlikePair = {
	a: string;
	b: string;
	/** Questions that both answered. */
	shared: number;
	/** Agreements, and of them those on the same wrong answer. */
	same: number;
	sameWrong: number;
	/** Agreements to be expected of two who work alone with such scores. */
	expected: number;
	/** So many standard deviations above what is expected. */
	z: number;
	/** The chance of so much agreement between two who worked alone, in any of all pairs (Bonferroni). */
	chance: number;
	/** Ids of the questions in which they took the same wrong answer. */
	wrongQuestions: string[];
};

/** Pairs with fewer questions in common say nothing. Common practice. */
const LEAST_SHARED = 10;
/** Below this the normal approximation settles it: nothing that is close. */
const LEAST_Z = 3;

/**
 * Pairs that agree more than the nominal rate allows, over all pairs together. By Wesolowsky (2000): a candidate has
 * question i right with p = (1 − (1 − r)^a)^(1/a), where r is the share right of all and a fits the candidate's own score;
 * two wrong answers agree by the shares of the wrong answers. Where it matters the tail is exact (Poisson binomial), as
 * the normal one is too short for easy agreement.
 * @param rate of false alarms among all pairs together
 */
export function findAlike(all: Answered[], rate = 0.05): { pairs: AlikePair[]; compared: number; limit: number } {
	const questions = sharesOf(all);
	const people = all.map((one) => abilityOf(one, questions));
	const pairs: (Omit<AlikePair, 'chance'> & { tail: number })[] = [];
	let compared = 0;
	for (let i = 0; i < people.length; i++) {
		for (let j = i + 1; j < people.length; j++) {
			const pair = compare(people[i], people[j], questions);
			if (!pair) continue;
			compared++;
			if (pair.tail < rate) pairs.push(pair);
		}
	}
	const found = pairs
		.map(({ tail, ...pair }) => ({ ...pair, chance: Math.min(1, tail * compared) }))
		.filter(({ chance }) => chance < rate)
		.sort((one, other) => one.chance - other.chance || other.z - one.z);
	return { pairs: found, compared, limit: compared === 0 ? rate : rate / compared };
}

/** Of a question: how many had it right, and how alike two wrong answers are by chance. */
type Shares = Map<string, { right: number; wrongAlike: number }>;

function sharesOf(all: Answered[]): Shares {
	const counts = new Map<string, { right: number; seen: number; wrong: Map<string, number> }>();
	for (const { answers } of all) {
		for (const [id, { value, isRight }] of answers) {
			const one = counts.get(id) ?? { right: 0, seen: 0, wrong: new Map() };
			counts.set(id, one);
			one.seen++;
			if (isRight) one.right++;
			else one.wrong.set(value, (one.wrong.get(value) ?? 0) + 1);
		}
	}
	return new Map(
		[...counts].map(([id, { right, seen, wrong }]) => {
			const all = seen - right;
			const squares = [...wrong.values()].reduce((sum, n) => sum + n * n, 0);
			// Two different people: neither is compared with their own answer.
			const wrongAlike = all < 2 ? 1 : (squares - all) / (all * (all - 1));
			return [id, { right: right / seen, wrongAlike: Math.max(wrongAlike, 1 / (2 * Math.max(1, all))) }];
		})
	);
}

type Person = Answered & { chances: Map<string, number> };

/** How likely this candidate has each question right, so that it adds up to what they had right. */
function abilityOf(one: Answered, questions: Shares): Person {
	const ids = [...one.answers.keys()];
	const right = [...one.answers.values()].filter(({ isRight }) => isRight).length;
	const shares = ids.map((id) => questions.get(id)!.right);
	const chance = (r: number, a: number) => (r >= 1 ? 1 : r <= 0 ? 0 : (1 - (1 - r) ** a) ** (1 / a));
	const sum = (logA: number) => shares.reduce((total, r) => total + chance(r, Math.exp(logA)), 0);
	// It grows with a, from nothing right to all that anybody had right.
	let [low, high] = [-6, 6];
	for (let step = 0; step < 50; step++) {
		const middle = (low + high) / 2;
		if (sum(middle) < right) low = middle;
		else high = middle;
	}
	const a = Math.exp((low + high) / 2);
	return { ...one, chances: new Map(ids.map((id, i) => [id, chance(shares[i], a)])) };
}

function compare(a: Person, b: Person, questions: Shares) {
	let [shared, same, expected, spread] = [0, 0, 0, 0];
	const [small, large] = a.answers.size <= b.answers.size ? [a, b] : [b, a];
	const chances: number[] = [];
	for (const [id, mine] of small.answers) {
		const theirs = large.answers.get(id);
		if (!theirs) continue;
		const [p, q] = [small.chances.get(id)!, large.chances.get(id)!];
		const chance = p * q + (1 - p) * (1 - q) * questions.get(id)!.wrongAlike;
		chances.push(chance);
		shared++;
		expected += chance;
		spread += chance * (1 - chance);
		if (mine.value === theirs.value || (mine.isRight && theirs.isRight)) same++;
	}
	if (shared < LEAST_SHARED || spread <= 0) return null;
	const z = (same - expected) / Math.sqrt(spread);
	if (z < LEAST_Z)
		return { a: a.sittingId, b: b.sittingId, shared, same, sameWrong: 0, expected, z, tail: 1, wrongQuestions: [] };
	const wrongQuestions = [...a.answers]
		.filter(([id, { value, isRight }]) => !isRight && b.answers.get(id)?.value === value)
		.map(([id]) => id);
	return {
		a: a.sittingId,
		b: b.sittingId,
		shared,
		same,
		sameWrong: wrongQuestions.length,
		expected,
		z,
		tail: tailOf(chances, same),
		wrongQuestions
	};
}

/** The chance of at least so many successes in independent trials of these chances, exactly. */
export function tailOf(chances: number[], least: number): number {
	// distribution[n]: the chance of n successes so far.
	const distribution = new Float64Array(chances.length + 1);
	distribution[0] = 1;
	chances.forEach((chance, done) => {
		for (let n = done + 1; n > 0; n--) distribution[n] = distribution[n] * (1 - chance) + distribution[n - 1] * chance;
		distribution[0] *= 1 - chance;
	});
	let tail = 0;
	for (let n = chances.length; n >= least; n--) tail += distribution[n];
	return Math.min(1, tail);
}
