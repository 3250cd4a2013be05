import { expectedPoints } from '../paper';
import type { Plannable } from '../plan';
import { solve, type Constraint, type Terms } from './program';

export type Forms = {
	/** The questions of each form. */
	ids: string[][];
	/** By form: points, expected points, minutes. */
	figures: { points: number; expected: number; minutes: number }[];
	isBest: boolean;
};

/** What a difference between two forms costs: a point to reach, an expected point, a question of a topic, a minute. */
const WEIGHT = { points: 20, expected: 10, topic: 4, minutes: 1 };
const expectedOf = ({ points, difficulty }: Plannable) => expectedPoints(points, difficulty ?? undefined);

/**
 * Makes forms of so many questions each that differ as little as possible: in points, expected points, numbers by topic and
 * minutes, in that order of weight; no question is in two. An integer program: for each measure the difference between the
 * highest and the lowest form is made small.
 * @throws RangeError there are too few questions
 */
export async function parallelForms(
	bank: Plannable[],
	{ forms, each, seconds }: { forms: number; each: number; seconds?: number }
): Promise<Forms> {
	if (forms * each > bank.length)
		throw new RangeError(`${forms} forms of ${each} take ${forms * each} questions, and there are ${bank.length}.`);
	const variable = (q: number, f: number) => `x${q}_${f}`;
	const all = Array.from({ length: forms }, (_, f) => f);
	const constraints: Constraint[] = [];
	const least: Terms = new Map();
	const sumOf = (form: number, amount: (question: Plannable) => number): Terms =>
		new Map(
			bank.map((question, q): [string, number] => [variable(q, form), amount(question)]).filter(([, n]) => n !== 0)
		);

	bank.forEach((_, q) => constraints.push({ terms: new Map(all.map((f) => [variable(q, f), 1])), is: '<=', than: 1 }));
	for (const f of all) constraints.push({ terms: sumOf(f, () => 1), is: '=', than: each });
	const even = (name: string, weight: number, amount: (question: Plannable) => number) => {
		least.set(`hi_${name}`, weight).set(`lo_${name}`, -weight);
		for (const f of all) {
			const terms = sumOf(f, amount);
			constraints.push({ terms: new Map([...terms, [`hi_${name}`, -1]]), is: '<=', than: 0 });
			constraints.push({ terms: new Map([...terms, [`lo_${name}`, -1]]), is: '>=', than: 0 });
		}
	};
	even('points', WEIGHT.points, ({ points }) => points);
	even('expected', WEIGHT.expected, expectedOf);
	even('minutes', WEIGHT.minutes, ({ minutes }) => minutes);
	const topics = [...new Set(bank.map(({ topic }) => topic))];
	if (topics.length > 1)
		topics.forEach((topic, t) => even(`t${t}`, WEIGHT.topic, (question) => (question.topic === topic ? 1 : 0)));

	const binary = bank.flatMap((_, q) => all.map((f) => variable(q, f)));
	const solved = await solve({ least, constraints, binary }, seconds);
	const chosen = solved
		? all.map((f) => bank.filter((_, q) => solved.values(variable(q, f)) > 0.5))
		: plainForms(bank, forms, each);
	return {
		ids: chosen.map((form) => form.map(({ id }) => id)),
		figures: chosen.map((form) => ({
			points: form.reduce((sum, { points }) => sum + points, 0),
			expected: form.reduce((sum, question) => sum + expectedOf(question), 0),
			minutes: form.reduce((sum, { minutes }) => sum + minutes, 0)
		})),
		isBest: solved?.isBest ?? false
	};
}

/**
 * The plain way, where the search finds nothing in its time: questions in order of topic and worth, spread evenly over what
 * there is, each to a form that has fewest of its topic and, of those, least to reach (longest first, after Graham 1969).
 */
function plainForms(bank: Plannable[], forms: number, each: number): Plannable[][] {
	const ordered = bank.toSorted(
		(a, b) => (a.topic < b.topic ? -1 : a.topic > b.topic ? 1 : 0) || b.points - a.points || b.minutes - a.minutes
	);
	const wanted = forms * each;
	const dealt: Plannable[][] = Array.from({ length: forms }, () => []);
	for (let i = 0; i < wanted; i++) {
		const question = ordered[Math.floor((i * ordered.length) / wanted)];
		const load = (form: Plannable[]) => [
			form.filter(({ topic }) => topic === question.topic).length,
			form.reduce((sum, { points }) => sum + points, 0)
		];
		const [least] = dealt
			.filter((form) => form.length < each)
			.map((form) => ({ form, load: load(form) }))
			.sort((a, b) => a.load[0] - b.load[0] || a.load[1] - b.load[1]);
		least.form.push(question);
	}
	return dealt;
}
