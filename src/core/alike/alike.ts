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
	const crowd = crowdOf(all, sharesOf(all));
	const { kinds, codes, width, placesOf } = crowd;
	const expectedOf = expectations(crowd);
	const pairs: (Omit<AlikePair, 'chance'> & { tail: number })[] = [];
	let compared = 0;
	for (let i = 0; i < all.length; i++) {
		const places = placesOf[kinds[i]];
		const mine = places.map((place) => codes[i * width + place]);
		for (let j = i + 1; j < all.length; j++) {
			const { shared, expected, deviation } = expectedOf(kinds[i], kinds[j]);
			if (shared < LEAST_SHARED || deviation === 0) continue;
			compared++;
			let same = 0;
			const theirs = j * width;
			for (let n = 0; n < places.length; n++) if (codes[theirs + places[n]] === mine[n]) same++;
			const z = (same - expected) / deviation;
			if (z < LEAST_Z) continue;
			const pair = { ...inDetail(crowd, i, j, same), shared, same, expected, z };
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

/**
 * All answers as numbers that lie side by side: a room of 5,000 has twelve million pairs, and what lies apart would be waited
 * for in each. Who answered the same questions and had as many right is of one kind, and as likely to have each right.
 */
type Crowd = {
	all: Answered[];
	/** Ids of the questions, by place. */
	ids: string[];
	width: number;
	/** How alike two wrong answers are by chance, by place. */
	wrongAlike: Float64Array;
	/** Of each person a row of places: RIGHT, a number for each wrong answer, or NONE. */
	codes: Int16Array;
	/** The kind of each person. */
	kinds: Int32Array;
	/** Of each kind: the places that were answered, and how likely each is right. */
	placesOf: Int32Array[];
	chancesOf: Float64Array[];
};
const NONE = -1;
const RIGHT = 0;

function crowdOf(all: Answered[], questions: Shares): Crowd {
	const ids = [...questions.keys()];
	const width = ids.length;
	const placeOf = new Map(ids.map((id, place) => [id, place]));
	const wrong = ids.map(() => new Map<string, number>());
	const codes = new Int16Array(all.length * width).fill(NONE);
	const kinds = new Int32Array(all.length);
	const known = new Map<string, number>();
	const placesOf: Int32Array[] = [];
	const chancesOf: Float64Array[] = [];
	for (const [i, one] of all.entries()) {
		for (const [id, { value, isRight }] of one.answers) {
			const place = placeOf.get(id)!;
			const own = wrong[place];
			if (!isRight && !own.has(value)) own.set(value, own.size + 1);
			codes[i * width + place] = isRight ? RIGHT : own.get(value)!;
		}
		const places = Int32Array.from(one.answers.keys(), (id) => placeOf.get(id)!).sort();
		const look = `${places.join()} ${rightOf(one)}`;
		if (!known.has(look)) {
			known.set(look, placesOf.length);
			placesOf.push(places);
			const chances = new Float64Array(width);
			for (const [id, chance] of abilityOf(one, questions)) chances[placeOf.get(id)!] = chance;
			chancesOf.push(chances);
		}
		kinds[i] = known.get(look)!;
	}
	const wrongAlike = Float64Array.from(questions.values(), (question) => question.wrongAlike);
	return { all, ids, width, wrongAlike, codes, kinds, placesOf, chancesOf };
}

const rightOf = ({ answers }: Answered) => [...answers.values()].filter(({ isRight }) => isRight).length;

/** How likely this candidate has each question right, so that it adds up to what they had right. */
function abilityOf(one: Answered, questions: Shares): [id: string, chance: number][] {
	const ids = [...one.answers.keys()];
	const right = rightOf(one);
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
	return ids.map((id, i) => [id, chance(shares[i], a)]);
}

type Expectation = { shared: number; expected: number; deviation: number };
/** More kinds than these, where everybody has a draw of their own, are not remembered by pairs. */
const MOST_KINDS = 1_500;

/** In how many questions two of these kinds may be expected to agree. */
function expectations(crowd: Crowd): (a: number, b: number) => Expectation {
	const count = crowd.placesOf.length;
	if (count > MOST_KINDS) return (a, b) => expectationOf(crowd, a, b);
	const known = new Array<Expectation | undefined>(count * count);
	return (a, b) => (known[a * count + b] ??= expectationOf(crowd, a, b));
}

function expectationOf(crowd: Crowd, a: number, b: number): Expectation {
	let expected = 0;
	let spread = 0;
	const chances = chancesToAgree(crowd, a, b);
	for (const chance of chances) {
		expected += chance;
		spread += chance * (1 - chance);
	}
	return { shared: chances.length, expected, deviation: Math.sqrt(Math.max(0, spread)) };
}

/** By the questions that both kinds answered. */
function chancesToAgree({ placesOf, chancesOf, wrongAlike }: Crowd, a: number, b: number): number[] {
	const [mine, theirs] = [placesOf[a], placesOf[b]];
	const [p, q] = [chancesOf[a], chancesOf[b]];
	const chances: number[] = [];
	// Both are in order.
	for (let i = 0, j = 0; i < mine.length && j < theirs.length;) {
		const place = mine[i];
		if (place === theirs[j]) {
			chances.push(p[place] * q[place] + (1 - p[place]) * (1 - q[place]) * wrongAlike[place]);
			i++;
			j++;
		} else if (place < theirs[j]) i++;
		else j++;
	}
	return chances;
}

function inDetail(crowd: Crowd, i: number, j: number, same: number) {
	const { all, ids, width, codes, kinds } = crowd;
	const wrongQuestions = ids.filter((_, place) => {
		const code = codes[i * width + place];
		return code > RIGHT && code === codes[j * width + place];
	});
	return {
		a: all[i].sittingId,
		b: all[j].sittingId,
		sameWrong: wrongQuestions.length,
		tail: tailOf(chancesToAgree(crowd, kinds[i], kinds[j]), same),
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
