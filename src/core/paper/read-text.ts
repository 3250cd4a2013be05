import { readQuantity } from '../quantity';
import type { Question } from './question';

/** A question as it was read, with what whoever takes it over should look at. `line` is where it begins, from 1. */
export type ReadQuestion = { question: Question; line: number; doubts: string[] };
export type ReadText = {
	questions: ReadQuestion[];
	/** Lines that belong to no question. */
	unread: { line: number; text: string }[];
};

const NUMBERED = /^\s*(?:(?:question|q)\s*)?(\d{1,4})\s*[.):]\s*(.*)$/i;
const LETTERED = /^\s*(\*|✓)?\s*\(?([A-Za-z])\s*[.)]\s*(.*)$/;
const ANSWER = /^\s*(?:answers?|key|correct|solution)\s*[:=]\s*(.+?)\s*$/i;
const POINTS = /[([]\s*(\d+(?:[.,]\d+)?)\s*(?:points?|marks?|pts?)\.?\s*[)\]]/i;

/** What is longer than this after a number is no unit, but a sentence. */
const LONGEST_UNIT = 31;

/** A question as it was found, before what is right of it is understood. */
export type Block = {
	line: number;
	stem: string[];
	choices: { letter: string; text: string; isMarked: boolean }[];
	answer: string | null;
};

/**
 * Reads questions from plain text: numbered questions, lettered choices, the right one starred, bold (`**so**`) or named in
 * a line "Answer: B". What cannot be read is told by its line, and nothing is dropped.
 * @param newId a new id for each question and choice
 */
export function readText(text: string, newId: () => string): ReadText {
	const unread: ReadText['unread'] = [];
	const blocks: Block[] = [];
	for (const [i, raw] of text.replace(/\r\n?/g, '\n').split('\n').entries()) {
		const line = i + 1;
		if (raw.trim() === '') continue;
		const block = blocks.at(-1);
		const numbered = NUMBERED.exec(raw);
		if (numbered) {
			blocks.push({ line, stem: [numbered[2]].filter(Boolean), choices: [], answer: null });
			continue;
		}
		if (!block) {
			unread.push({ line, text: raw.trim() });
			continue;
		}
		const answer = ANSWER.exec(raw);
		const lettered = LETTERED.exec(raw);
		if (answer) block.answer = answer[1];
		else if (lettered && isNextLetter(lettered[2], block)) {
			const marked = unmarked(lettered[3]);
			block.choices.push({
				letter: lettered[2].toUpperCase(),
				text: marked.text,
				isMarked: lettered[1] !== undefined || marked.isMarked
			});
		} else if (block.answer !== null) unread.push({ line, text: raw.trim() });
		else if (block.choices.length > 0) block.choices.at(-1)!.text += ` ${raw.trim()}`;
		else block.stem.push(raw.trim());
	}
	return { questions: blocks.map((block) => toQuestion(block, newId)), unread };
}

/** A choice goes on from the one before it; "A. Smith wrote" in a question's text does not begin one at C. */
function isNextLetter(letter: string, { choices }: Block): boolean {
	return letter.toUpperCase().charCodeAt(0) === 'A'.charCodeAt(0) + choices.length;
}

function unmarked(text: string): { text: string; isMarked: boolean } {
	const bold = /^\*\*(.+)\*\*$/.exec(text.trim());
	if (bold) return { text: bold[1], isMarked: true };
	const starred = /^(.*?)\s*(?:\*|✓|\(correct\)|\[x\])$/i.exec(text.trim());
	return starred ? { text: starred[1], isMarked: true } : { text: text.trim(), isMarked: false };
}

/** A question out of what was found of it, with what is doubtful. */
export function toQuestion(block: Block, newId: () => string): ReadQuestion {
	const doubts: string[] = [];
	let stem = block.stem.join('\n');
	const points = POINTS.exec(stem);
	if (points) stem = stem.replace(points[0], '').trim();
	const shared = { id: newId(), stem, points: points ? Number(points[1].replace(',', '.')) : 1, topic: '' };
	if (stem === '') doubts.push('There is no question text.');
	const read = block.choices.length > 0 ? withChoices(block, newId, doubts) : withoutChoices(block, doubts);
	return { question: { ...shared, ...read } as Question, line: block.line, doubts };
}

function withChoices({ choices, answer }: Block, newId: () => string, doubts: string[]) {
	const made = choices.map(({ text }) => ({ id: newId(), text }));
	const named = answer === null ? [] : lettersOf(answer);
	const byText = choices.findIndex(({ text }) => answer !== null && text.toLowerCase() === answer.toLowerCase());
	const right = choices.flatMap(({ letter, isMarked }, i) =>
		isMarked || named.includes(letter) || i === byText ? [made[i].id] : []
	);
	const unknown = named.filter((letter) => !choices.some((choice) => choice.letter === letter));
	if (answer !== null && right.length === 0) doubts.push(`The answer “${answer}” is not one of the choices.`);
	else if (unknown.length > 0 && byText < 0) doubts.push(`There is no choice ${unknown.join(', ')}.`);
	if (right.length === 0 && answer === null) doubts.push('No choice is marked as right.');
	const marked = choices.filter(({ isMarked }) => isMarked).length;
	if (marked > 0 && named.length > 0 && marked !== named.length)
		doubts.push('The mark at a choice and the line “Answer” do not agree; both were used.');
	if (choices.some(({ text }) => text === '')) doubts.push('A choice is empty.');
	const isTrueFalse =
		choices.length === 2 &&
		/^true\.?$/i.test(choices[0].text) &&
		/^false\.?$/i.test(choices[1].text) &&
		right.length === 1;
	if (isTrueFalse) return { kind: 'true_false', answer: right[0] === made[0].id };
	if (right.length > 1) return { kind: 'multiple', choices: made, answer: right, partial: false };
	return { kind: 'single', choices: made, answer: right[0] ?? '' };
}

/** "B", "b, d", "B and D", "BD": letters alone, or it is words. */
function lettersOf(answer: string): string[] {
	const tokens = answer.split(/\s*(?:\band\b|[\s,;/&.()]+)\s*/i).filter(Boolean);
	if (tokens.every((token) => /^[A-Za-z]$/.test(token))) return tokens.map((token) => token.toUpperCase());
	return tokens.length === 1 && /^[A-H]{2,8}$/.test(tokens[0]) ? [...tokens[0]] : [];
}

function withoutChoices({ answer }: Block, doubts: string[]) {
	if (answer === null) {
		doubts.push('There are no choices and no answer: it is read as an essay, marked by hand.');
		return { kind: 'essay', words: null };
	}
	if (/^(true|false|yes|no)\.?$/i.test(answer)) return { kind: 'true_false', answer: /^(true|yes)/i.test(answer) };
	const { values, unit } = readQuantity(answer);
	if (values.length > 0 && unit.length <= LONGEST_UNIT) {
		// As it is read when a candidate types it; of two readings the one with groups, which is what 12,500 mostly means.
		const value = values[values.length - 1];
		if (values.length > 1) doubts.push(`“${answer}” can be read as ${values.join(' or as ')}: ${value} was taken.`);
		if (!Number.isInteger(value)) doubts.push('No tolerance is given: 1 % is assumed.');
		const amount = Number.isInteger(value) ? 0 : 0.01;
		return { kind: 'numeric', answer: value, tolerance: { kind: 'relative', amount }, unit };
	}
	if (/^[-+−]?[\d.,]+\s*\S/.test(answer))
		doubts.push(`“${answer}” begins with a number and can’t be read as one: it is read as words.`);
	return { kind: 'short', accepted: answer.split(/\s*[;|]\s*/).filter(Boolean) };
}
