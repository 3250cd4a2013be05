import { readFormula, type ReadFormula } from '../formula';
import type { Parameter, Question } from './question';

export type CalculatedQuestion = Extract<Question, { kind: 'calculated' }>;
export type NumericQuestion = Extract<Question, { kind: 'numeric' }>;
/** A whole number from 0 to `most`, at random. */
export type Pick = (most: number) => number;

/** Picks that are the same each time, for examples: the minimal standard generator (Park & Miller 1988). */
export function steadyPick(): Pick {
	let last = 1;
	return (most) => (last = (last * 16_807) % 2_147_483_647) % (most + 1);
}

/** How often numbers are redrawn that do not fulfil the conditions. An author is told long before it comes to that. */
const MOST_DRAWS = 500;
/** Digits that are kept of a reckoned value: binary fractions leave no trace. */
const DIGITS = 12;

type Reading = { formula: ReadFormula; conditions: ReadFormula[] };
/** A question never changes, so its formulas are read once: a thousand forms are dealt from the same. */
const readings = new WeakMap<CalculatedQuestion, Reading>();
function readingOf(question: CalculatedQuestion): Reading {
	const known = readings.get(question);
	if (known) return known;
	const names = question.parameters.map(({ name }) => name);
	const reading = {
		formula: readFormula(question.formula, names),
		conditions: question.conditions.map((text) => readFormula(text, names))
	};
	readings.set(question, reading);
	return reading;
}
/** Whether numbers fulfil every condition; one that cannot be read is fulfilled by none. */
function isMet({ conditions }: Reading, drawn: Record<string, number>): boolean {
	return conditions.every((condition) => condition.ok && condition.formula.valueFor(drawn) > 0);
}

/** How many values a parameter can have; 0: its range is none. */
export function valueCount(parameter: Parameter): number {
	if ('values' in parameter) return parameter.values.length;
	const { from, to, step } = parameter;
	return step > 0 && to >= from ? Math.floor((to - from) / step + 1e-9) + 1 : 0;
}

function valueAt(parameter: Parameter, index: number): number {
	if ('values' in parameter) return parameter.values[index];
	return Number((parameter.from + index * parameter.step).toPrecision(DIGITS));
}

/** Draws a number for each parameter, together such that the conditions are fulfilled. The same picks give the same numbers. */
export function draw(question: CalculatedQuestion, pick: Pick): Record<string, number> {
	const reading = readingOf(question);
	let drawn: Record<string, number> = {};
	for (let tries = 0; tries < MOST_DRAWS; tries++) {
		drawn = Object.fromEntries(
			question.parameters.map((parameter) => [
				parameter.name,
				valueAt(parameter, pick(Math.max(0, valueCount(parameter) - 1))) ?? 0
			])
		);
		if (isMet(reading, drawn)) return drawn;
	}
	return drawn;
}

/** The answer for these numbers; NaN: there is none. */
export function answerFor(question: CalculatedQuestion, drawn: Record<string, number>): number {
	const { formula } = readingOf(question);
	const value = formula.ok ? formula.formula.valueFor(drawn) : NaN;
	return Number.isFinite(value) ? Number(value.toPrecision(DIGITS)) : NaN;
}

/** The question as somebody gets it: a numeric one, with the numbers in its words and the answer that follows from them. */
export function asDrawn(question: CalculatedQuestion, drawn: Record<string, number>): NumericQuestion {
	return { ...worded(question, drawn), answer: answerFor(question, drawn) };
}

/** The same without its answer: dealing does not reckon. */
export function worded(question: CalculatedQuestion, drawn: Record<string, number>): NumericQuestion {
	const { parameters: _, conditions: __, formula: ___, ...rest } = question;
	const fill = (text: string) => withNumbers(text, drawn);
	const inOther =
		rest.inOther &&
		Object.fromEntries(
			Object.entries(rest.inOther).map(([language, wording]) => [language, { ...wording, stem: fill(wording.stem) }])
		);
	return {
		...rest,
		kind: 'numeric',
		stem: fill(rest.stem),
		...(inOther ? { inOther } : {}),
		answer: NaN
	};
}

/** A text with numbers in the place of names in braces; a brace that names none stays as it is. */
function withNumbers(text: string, drawn: Record<string, number>): string {
	return text.replace(/\{([A-Za-z][A-Za-z0-9_]*)\}/g, (all, name: string) =>
		Object.hasOwn(drawn, name) ? String(drawn[name]) : all
	);
}

/** The names in braces of a text. */
export function namesIn(text: string): string[] {
	return [...new Set([...text.matchAll(/\{([A-Za-z][A-Za-z0-9_]*)\}/g)].map(([, name]) => name))];
}

export type Example = { drawn: Record<string, number>; answer: number };

/** How a question comes out: so many drawn examples, and of many more those with the least and the most. */
export function examplesOf(
	question: CalculatedQuestion,
	pick: Pick,
	count = 20
): { examples: Example[]; least: Example | null; most: Example | null } {
	const drawOne = (): Example => {
		const drawn = draw(question, pick);
		return { drawn, answer: answerFor(question, drawn) };
	};
	const examples = Array.from({ length: count }, drawOne);
	const all = [...examples, ...Array.from({ length: 200 }, drawOne)].filter(({ answer }) => Number.isFinite(answer));
	const best = (better: (a: number, b: number) => boolean) =>
		all.reduce<Example | null>(
			(found, one) => (found === null || better(one.answer, found.answer) ? one : found),
			null
		);
	return { examples, least: best((a, b) => a < b), most: best((a, b) => a > b) };
}

/** A question never changes, and is looked at again with every change of its paper. */
const faults = new WeakMap<CalculatedQuestion, { fault: string | null }>();

/** What keeps a question from being reckoned, in a sentence; null: nothing. */
export function calculatedFault(question: CalculatedQuestion): string | null {
	const known = faults.get(question) ?? { fault: findFault(question) };
	faults.set(question, known);
	return known.fault;
}

function findFault(question: CalculatedQuestion): string | null {
	const { parameters, conditions } = question;
	if (parameters.length === 0) return 'There is no parameter to draw. Write one in braces in the text: {height}.';
	const empty = parameters.find((parameter) => valueCount(parameter) === 0);
	if (empty) return `{${empty.name}} has no values: give a range that rises by a step, or a list.`;
	const reading = readingOf(question);
	if (!reading.formula.ok) return reading.formula.message;
	for (const [i, condition] of reading.conditions.entries())
		if (!condition.ok) return `The condition “${conditions[i]}” can’t be read: ${condition.message}`;
	// Every combination where there are few, else many of them, in an order that is the same each time.
	const all = combinations(parameters);
	const met = all.filter((drawn) => isMet(reading, drawn));
	if (met.length === 0) return 'No numbers fulfil the conditions together.';
	if (met.length / all.length < 0.02) return 'Hardly any numbers fulfil the conditions. Make the ranges narrower.';
	const failing = met.find((drawn) => !Number.isFinite(answerFor(question, drawn)));
	if (!failing) return null;
	const numbers = parameters.map(({ name }) => `${name} = ${failing[name]}`).join(', ');
	return `There is no answer for ${numbers}. Add a condition that leaves this out.`;
}

const MOST_TRIED = 400;
function combinations(parameters: Parameter[]): Record<string, number>[] {
	const counts = parameters.map(valueCount);
	const total = counts.reduce((product, count) => product * count, 1);
	const step = Math.max(1, Math.floor(total / MOST_TRIED));
	return Array.from({ length: Math.min(total, Math.ceil(total / step)) }, (_, i) => {
		let rest = i * step;
		return Object.fromEntries(
			parameters.map((parameter, p) => {
				const index = rest % counts[p];
				rest = Math.floor(rest / counts[p]);
				return [parameter.name, valueAt(parameter, index)];
			})
		);
	});
}

/** Whether an answer may have endless decimals: more than six, for some of the numbers. */
export function hasEndlessDecimals(question: CalculatedQuestion): boolean {
	return combinations(question.parameters).some((drawn) => {
		const answer = answerFor(question, drawn);
		return Number.isFinite(answer) && Math.abs(answer * 1e6 - Math.round(answer * 1e6)) > 1e-3;
	});
}
