import { readQuantity } from '../quantity';
import type { Question } from './question';

/** A question as it was read, with what whoever takes it over should look at. `line` is where it begins, from 1. */
export type ReadQuestion = {
	question: Question;
	line: number;
	doubts: string[];
	/** The heading under which it stands. */
	part?: string;
};
export type ReadText = {
	questions: ReadQuestion[];
	/** Lines that belong to no question. */
	unread: { line: number; text: string }[];
	/** How many right answers were found in a list of their own, as at the end of a document. */
	keys?: number;
};

/** `12.`, `12)`, `Question 12:`; a decimal at the start of a line numbers nothing. */
const NUMBERED = /^\s*(?:(?:question|q)\s*\.?\s*)?(\d{1,4})\s*[.):](?!\d)\s*(.*)$/i;
const LETTERED = /^\s*(\*|✓)?\s*\(?([A-Za-z])\s*[.)](?!\S[.)])\s*(.*)$/;
const ANSWER =
	/^\s*(?:the\s+)?(?:(?:correct|right)\s+)?(?:answers?|ans|key|correct|solution|option)(?:\s+is)?\s*[:=]\s*(.+?)\s*$/i;
const POINTS = /[([]\s*(\d+(?:[.,]\d+)?)\s*(?:points?|marks?|pts?)(?:\s+each)?\.?\s*[)\]]/i;
const HEADING = /^\s*#{1,6}\s+(.+?)\s*$/;
/** A line that names a part and nothing else, without being marked as a heading. */
const PART = /^\s*(?:part|section)\s+(?:[A-Z]|[IVX]{1,4}|\d{1,2}|one|two|three|four|five)\b(?:\s*[:.–—-].*)?$/i;
/** What stands above a list of right answers. */
const KEYS = /^\s*(?:answer\s*(?:key|sheet)|answers|key|solutions|mark(?:ing)?\s*scheme)\s*(?::\s*(.*))?$/i;
/** `1 B`, `2) C`, `3: 7/8`, one after the other in a line. */
const PAIR =
	/(?:^|[,;\t]|\s{2,}|\s)\s*(\d{1,4})\s*[.):=–-]?\s*\(?([A-Za-z](?:\s*[+&/]\s*[A-Za-z])*)\)?(?=\s*(?:[,;\t]|\s\d|$))/g;

/** What is longer than this after a number is no unit, but a sentence. */
const LONGEST_UNIT = 31;
/** A line that begins with a number so far from the last one's is the year in a sentence. */
const LEAST_YEAR = 1_000;
/** Words of a bold line that is a heading and no part of a choice. */
const LONGEST_HEADING = 80;

/** A question as it was found, before what is right of it is understood. */
export type Block = {
	line: number;
	stem: string[];
	choices: { letter: string; text: string; isMarked: boolean }[];
	answer: string | null;
	/** As it was printed. */
	number?: number;
	part?: string;
};

/**
 * Reads questions from plain text: numbered questions, lettered choices, the right one starred, bold (`**so**`), named in a
 * line "Answer: B", or in a list of answers at the end. Headings (`# so`) name parts. What cannot be read is told by its
 * line, and nothing is dropped.
 * @param newId a new id for each question and choice
 */
export function readText(text: string, newId: () => string): ReadText {
	const unread: ReadText['unread'] = [];
	const blocks: Block[] = [];
	const listed = new Map<number, string>();
	let part: string | undefined;
	/** What is read now belongs to the list of answers. */
	let isKeys = false;
	for (const [i, whole] of text.replace(/\r\n?/g, '\n').split('\n').entries()) {
		const line = i + 1;
		if (whole.trim() === '') continue;
		const bold = /^\s*\*\*((?:(?!\*\*).)+)\*\*\s*$/.exec(whole);
		const isBold = bold !== null;
		for (const raw of piecesOf(narrow(bold?.[1] ?? whole))) {
			const block = blocks.at(-1);
			const keys = block ? KEYS.exec(HEADING.exec(raw)?.[1] ?? raw) : null;
			if (keys && (keys[1] === undefined || keys[1] === '' || pairsOf(keys[1]).length > 1)) {
				isKeys = true;
				for (const [number, key] of pairsOf(keys[1] ?? '')) listed.set(number, key);
				continue;
			}
			if (isKeys) {
				const pairs = keysIn(raw, blocks);
				for (const [number, key] of pairs) listed.set(number, key);
				if (pairs.length > 0) continue;
				isKeys = false;
			}
			const heading = HEADING.exec(raw);
			const isPart = PART.test(raw) || (isBold && isHeadingAfter(block, raw));
			if (heading || isPart) {
				part = (heading?.[1] ?? raw.trim()).slice(0, 200);
				// A title above the first question is told, and names the part.
				if (!block) unread.push({ line, text: part });
				blocks.push({ line: 0, stem: [], choices: [], answer: null });
				continue;
			}
			const numbered = NUMBERED.exec(raw);
			if (numbered && isNextNumber(Number(numbered[1]), blocks)) {
				blocks.push({
					line,
					number: Number(numbered[1]),
					stem: [numbered[2]].filter(Boolean),
					choices: [],
					answer: null,
					...(part === undefined ? {} : { part })
				});
				continue;
			}
			if (!block || block.line === 0) {
				unread.push({ line, text: raw.trim() });
				continue;
			}
			const answer = ANSWER.exec(raw);
			const lettered = LETTERED.exec(raw);
			if (answer && block.answer === null) block.answer = answer[1];
			else if (lettered && isNextLetter(lettered[2], block)) {
				const marked = unmarked(lettered[3]);
				block.choices.push({
					letter: lettered[2].toUpperCase(),
					text: marked.text,
					isMarked: isBold || lettered[1] !== undefined || marked.isMarked
				});
			} else if (block.answer !== null) unread.push({ line, text: raw.trim() });
			else if (block.choices.length > 0) block.choices.at(-1)!.text += ` ${raw.trim()}`;
			else block.stem.push(isBold ? `**${raw.trim()}**` : raw.trim());
		}
	}
	const asked = blocks.filter((one) => one.line > 0);
	const given = withListed(asked, listed);
	const questions = asked.map((block) => {
		const read = toQuestion(block, newId);
		return block.part === undefined ? read : { ...read, part: block.part };
	});
	for (const [number, key] of listed) {
		const count = asked.filter((block) => block.number === number).length;
		if (count === 1) continue;
		const why = count === 0 ? 'which is not there' : `and ${count} questions have that number`;
		unread.push({ line: 0, text: `The list of answers names ${key} for question ${number}, ${why}.` });
	}
	return { questions, unread, ...(listed.size > 0 ? { keys: given } : {}) };
}

/** Numbers and letters at the start of a line that are written full width, as in East Asia, as narrow ones. */
function narrow(line: string): string {
	const start = /^[\s*✓]*[（(]?[\uff10-\uff19\uff21-\uff3a\uff41-\uff5aA-Za-z0-9]{1,4}\s*[．）：、.):]/.exec(line)?.[0];
	return start === undefined || !/[\u3001\uff08-\uff5a]/.test(start)
		? line
		: start.normalize('NFKC').replace('、', '.') + line.slice(start.length).replace(/^(?=\S)/, ' ');
}

/** Choices that stand in one line, `A. one    B. two`, each by itself. */
function piecesOf(line: string): string[] {
	if (!/^\s*\*?\s*\(?[Aa]\s*[.)]/.test(line) && !/\t/.test(line)) return [line];
	const pieces = line.split(/(?:\t+|\s{3,})(?=\*?\s*\(?[A-Za-z]\s*[.)]\s)/);
	return pieces.every((piece) => LETTERED.test(piece)) || pieces.length > 1 ? pieces : [line];
}

/** A bold line under a question that has its choices, or its answer, heads what comes next. */
function isHeadingAfter(block: Block | undefined, raw: string): boolean {
	if (!block || NUMBERED.test(raw) || LETTERED.test(raw) || ANSWER.test(raw) || raw.length > LONGEST_HEADING)
		return false;
	return block.line === 0 || block.choices.length > 1 || block.answer !== null;
}

/** A year that begins a line of a question's text numbers none. */
function isNextNumber(number: number, blocks: Block[]): boolean {
	const last = blocks.findLast((block) => block.number !== undefined)?.number;
	return number < LEAST_YEAR || last === undefined || number === last + 1;
}

/** Pairs of a number and letters; none unless the whole line is made of them. */
function pairsOf(text: string): [number, string][] {
	const pairs = [...text.matchAll(PAIR)];
	const rest = pairs.reduce((left, [pair]) => left.replace(pair, ' '), text).replace(/[\s,;.]/g, '');
	return rest === '' ? pairs.map(([, number, key]) => [Number(number), key]) : [];
}

/** What a line of a list of answers says: pairs, or one answer behind the number of a question that is there. */
function keysIn(raw: string, blocks: Block[]): [number, string][] {
	const pairs = pairsOf(raw);
	if (pairs.length > 0) return pairs;
	const one = /^\s*(\d{1,4})\s*[.):=–-]?\s+(.+?)\s*$/.exec(raw);
	const number = Number(one?.[1]);
	return one && blocks.some((block) => block.number === number) ? [[number, one[2]]] : [];
}

/** Gives each question what the list says of it, and tells of how many; where two have one number it says of neither. */
function withListed(blocks: Block[], listed: Map<number, string>): number {
	let given = 0;
	for (const block of blocks) {
		const key = block.number === undefined ? undefined : listed.get(block.number);
		const isOnly = blocks.filter(({ number }) => number === block.number).length === 1;
		if (key === undefined || !isOnly || block.answer !== null) continue;
		block.answer = key;
		given++;
	}
	return given;
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
	const own = POINTS.exec(stem);
	if (own) stem = stem.replace(own[0], '').trim();
	// "Part 2: short answers (2 marks each)"
	const points = own ?? POINTS.exec(block.part ?? '');
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
	const marked = choices.filter(({ isMarked }) => isMarked).map(({ letter }) => letter);
	if (marked.length > 0 && named.length > 0 && [...marked].sort().join() !== [...new Set(named)].sort().join())
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
	const number = answerOf(answer, doubts);
	if (number) return number;
	if (/^[-+−]?[\d.,]+\s*\S/.test(answer))
		doubts.push(`“${answer}” begins with a number and can’t be read as one: it is read as words.`);
	return { kind: 'short', accepted: answer.split(/\s*[;|]\s*/).filter(Boolean) };
}

/** The key of a numeric question out of what is written as its answer; null: it is no number. */
export function answerOf(answer: string, doubts: string[] = []) {
	const { values, unit } = readQuantity(answer);
	if (values.length > 0 && unit.length <= LONGEST_UNIT) {
		// As it is read when a candidate types it; of two readings the one with groups, which is what 12,500 mostly means.
		const value = values[values.length - 1];
		if (values.length > 1) doubts.push(`“${answer}” can be read as ${values.join(' or as ')}: ${value} was taken.`);
		if (!Number.isInteger(value)) doubts.push('No tolerance is given: 1 % is assumed.');
		const amount = Number.isInteger(value) ? 0 : 0.01;
		return { kind: 'numeric' as const, answer: value, tolerance: { kind: 'relative' as const, amount }, unit };
	}
	return null;
}
