import { keepsPlace, type Question, type Wording } from '$core/paper';

/** A question before it has an id and a topic. */
export type Draft = Question extends infer Q ? (Q extends Question ? Omit<Q, 'id' | 'topic'> : never) : never;

type More = { picture?: string; inOther?: Record<string, Wording>; hint?: string };

export const yes = (stem: string): Draft => ({ kind: 'true_false', stem, answer: true, points: 1 });
export const no = (stem: string): Draft => ({ kind: 'true_false', stem, answer: false, points: 1 });

/** The right choice is written first. It is stored elsewhere: a choice's id must not tell whether it is right. */
export const pick = (stem: string, right: string, ...wrong: string[]): Draft => {
	const fixed = wrong.filter((text) => keepsPlace({ id: '', text }));
	const free = [right, ...wrong.filter((text) => !fixed.includes(text))];
	const choices = [...turned(free, stem), ...fixed].map((text, i) => ({ id: 'abcdef'[i], text }));
	return { kind: 'single', stem, choices, answer: choices.find((choice) => choice.text === right)!.id, points: 2 };
};

/** Several are right: written first, and stored turned like those of `pick`. */
export const pickAll = (stem: string, right: string[], wrong: string[], more: More = {}): Draft => {
	const choices = turned([...right, ...wrong], stem).map((text, i) => ({ id: 'abcdefgh'[i], text }));
	const answer = choices.filter((choice) => right.includes(choice.text)).map((choice) => choice.id);
	return { kind: 'multiple', stem, choices, answer, partial: true, points: right.length, ...more };
};

export const match = (stem: string, pairs: [string, string][], strays: string[] = []): Draft => {
	const matches = turned([...pairs.map(([, to]) => to), ...strays], stem).map((text, i) => ({ id: `m${i + 1}`, text }));
	const items = pairs.map(([text], i) => ({ id: `i${i + 1}`, text }));
	const answer = Object.fromEntries(
		pairs.map(([, to], i) => [items[i].id, matches.find((each) => each.text === to)!.id])
	);
	return { kind: 'matching', stem, items, matches, answer, partial: true, points: pairs.length };
};

/** In the right order. */
export const inOrder = (stem: string, ...texts: string[]): Draft => {
	const choices = turned(texts, stem).map((text, i) => ({ id: 'abcdefgh'[i], text }));
	const answer = texts.map((text) => choices.find((choice) => choice.text === text)!.id);
	return { kind: 'ordering', stem, choices, answer, partial: true, points: 2 };
};

/** `gaps`: what each `[id]` of the stem accepts. */
export const fill = (stem: string, gaps: Record<string, string[]>): Draft => ({
	kind: 'fill_in',
	stem,
	gaps: Object.entries(gaps).map(([id, accepted]) => ({ id, accepted })),
	partial: true,
	points: Object.keys(gaps).length
});

export const short = (stem: string, accepted: string[], more: More = {}): Draft => ({
	kind: 'short',
	stem,
	accepted,
	points: 1,
	...more
});

export const reckoned = (stem: string, answer: number, tolerance: number, unit: string): Draft => ({
	kind: 'numeric',
	stem,
	answer,
	tolerance: { kind: 'absolute', amount: tolerance },
	unit,
	points: 2
});

export const essay = (stem: string, from: number, to: number, points: number): Draft => ({
	kind: 'essay',
	stem,
	words: { from, to },
	points
});

/** The same list begun elsewhere, so that where something stands says nothing. */
function turned(texts: string[], by: string): string[] {
	const turn = by.length % texts.length;
	return [...texts.slice(turn), ...texts.slice(0, turn)];
}
