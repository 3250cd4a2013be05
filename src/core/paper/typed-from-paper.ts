import { isBlank, LONGEST_LINE, type AnswerValue } from './answer';
import { partLetter } from './edit';
import type { FormQuestion } from './question';

export type Typed = { ok: true; value: AnswerValue } | { ok: false; why: string };

/**
 * What somebody wrote on paper, as it is typed in: choices by the letters that stand there, several one after the other;
 * matches as `1 B, 2 A`; gaps with a semicolon between. Nothing is blank.
 * @param question as it was printed, whose letters are meant
 */
export function readTyped(question: FormQuestion, text: string): Typed {
	const typed = text.trim();
	if (typed === '') return value(null);
	switch (question.kind) {
		case 'true_false':
			if (/^(t|true|yes)$/i.test(typed)) return value(true);
			return /^(f|false|no)$/i.test(typed) ? value(false) : fault('Type T or F.');
		case 'single': {
			const [id, ...more] = byLetters(question.choices!, typed) ?? [];
			return id === undefined || more.length > 0 ? fault(`Type one letter, ${range(question.choices!)}.`) : value(id);
		}
		case 'multiple':
		case 'ordering': {
			const ids = byLetters(question.choices!, typed);
			return ids ? value(ids) : fault(`Type letters, ${range(question.choices!)}, each once: A, C.`);
		}
		case 'matching':
			return readMatches(question, typed);
		case 'fill_in':
			return readGaps(question.gaps!, typed);
		case 'numeric':
		case 'short':
			return typed.length > LONGEST_LINE ? fault(`At most ${LONGEST_LINE} signs.`) : value(typed);
		case 'essay':
			return value(typed);
		case 'upload':
			return fault('Add a scan of it instead.');
	}
}

/** The same the other way round: how an answer would be typed. */
export function typedFrom(question: FormQuestion, given: AnswerValue): string {
	if (isBlank(given)) return '';
	const letters = (ids: string[]) => ids.map((id) => letterOf(question.choices!, id)).join(', ');
	switch (question.kind) {
		case 'true_false':
			return given ? 'T' : 'F';
		case 'single':
			return letters([given as string]);
		case 'multiple':
			return letters(question.choices!.map(({ id }) => id).filter((id) => (given as string[]).includes(id)));
		case 'ordering':
			return letters(given as string[]);
		case 'matching': {
			const matches = given as Record<string, string>;
			return question
				.items!.flatMap(({ id }, i) => (matches[id] ? `${i + 1} ${letterOf(question.matches!, matches[id])}` : []))
				.join(', ');
		}
		case 'fill_in':
			return question
				.gaps!.map((gap) => (given as Record<string, string>)[gap] ?? '')
				.join('; ')
				.replace(/[; ]+$/, '');
		case 'upload':
			return '';
		default:
			return given as string;
	}
}

/** How it is typed, in a few words beside the field. */
export function howTyped(question: FormQuestion): string {
	switch (question.kind) {
		case 'true_false':
			return 'T or F';
		case 'single':
			return `One letter, ${range(question.choices!)}`;
		case 'multiple':
			return `Letters, ${range(question.choices!)}`;
		case 'ordering':
			return `Letters in their order, ${range(question.choices!)}`;
		case 'matching':
			return '1 B, 2 A, …';
		case 'fill_in':
			return question.gaps!.length > 1 ? `${question.gaps!.length} gaps, with ; between` : 'The gap';
		case 'numeric':
			return question.unit ? `Number, in ${question.unit}` : 'Number';
		case 'essay':
			return 'The whole text';
		case 'upload':
			return 'A scan is added on the next page';
		default:
			return 'As it was written';
	}
}

const value = (value: AnswerValue): Typed => ({ ok: true, value });
const fault = (why: string): Typed => ({ ok: false, why });
const range = (list: unknown[]) => `A to ${partLetter(list.length - 1)}`;
const letterOf = (list: { id: string }[], id: string) => partLetter(list.findIndex((one) => one.id === id));

const byLetter = (list: { id: string }[], letter: string) =>
	list.find((_, i) => partLetter(i) === letter.toUpperCase())?.id;

/** Past Z places are numbers with a point. */
const LETTERS = /\d+\.|[a-z]/gi;

/** Ids in the order in which their letters were typed; null: something else was typed, or one twice. */
function byLetters(list: { id: string }[], typed: string): string[] | null {
	if (typed.replace(LETTERS, '').replace(/[\s,;/]|\band\b/gi, '') !== '') return null;
	const found = (typed.replace(/\band\b/gi, ' ').match(LETTERS) ?? []).map((letter) => byLetter(list, letter));
	const ids = found.filter((id) => id !== undefined);
	return ids.length < found.length || new Set(ids).size < ids.length ? null : ids;
}

/** A number with its letter: `1 B`, `1: B`, `1b`. */
const PAIR = /(\d+)\s*[:.)-]?\s*([a-z](?![a-z])|\d+\.)/gi;

function readMatches({ items, matches }: FormQuestion, typed: string): Typed {
	const given: Record<string, string> = {};
	const pairs = [...typed.matchAll(PAIR)];
	const rest = typed.replace(PAIR, '').replace(/[\s,;]/g, '');
	for (const [, number, letter] of pairs) {
		const item = items![Number(number) - 1];
		const match = byLetter(matches!, letter);
		if (item && match && given[item.id] === undefined) given[item.id] = match;
		else return fault(matchFault(items!, matches!));
	}
	return pairs.length === 0 || rest !== '' ? fault(matchFault(items!, matches!)) : value(given);
}

const matchFault = (items: unknown[], matches: unknown[]) =>
	`Type each number, 1 to ${items.length}, with its letter, ${range(matches)}: 1 B, 2 A.`;

function readGaps(gaps: string[], typed: string): Typed {
	const parts = typed.split(';').map((part) => part.trim());
	if (parts.length > gaps.length)
		return fault(gaps.length === 1 ? 'There is one gap.' : `There are ${gaps.length} gaps, with ; between.`);
	if (parts.some((part) => part.length > LONGEST_LINE)) return fault(`At most ${LONGEST_LINE} signs in each.`);
	return value(Object.fromEntries(parts.flatMap((part, i) => (part === '' ? [] : [[gaps[i], part]]))));
}
