import { DIFFICULTIES, type Difficulty } from './difficulty';
import { QUESTION_KIND_NAMES } from './new-question';
import type { Question } from './question';
import { toQuestion, type Block, type ReadQuestion, type ReadText } from './read-text';

/** What a column of a table can hold. There may be several of choices, one for each. */
export const QUESTION_COLUMNS = {
	text: 'Question',
	choice: 'Choices, or one of them',
	right: 'What is right',
	kind: 'Kind',
	points: 'Points',
	topic: 'Topic',
	difficulty: 'Difficulty',
	seconds: 'Seconds',
	tags: 'Tags',
	hint: 'Hint',
	feedback_right: 'Told when right',
	feedback_wrong: 'Told when wrong',
	source: 'Source',
	note: 'Notes for authors',
	none: 'Leave out'
} as const;
export type QuestionColumn = keyof typeof QUESTION_COLUMNS;

/** What headings are called, in the order in which they are tried: "Right answer" is no answer to choose from. */
const HEADINGS: [RegExp, QuestionColumn][] = [
	[/told when (right|correct)|feedback.*(right|correct)|(right|correct).*feedback/i, 'feedback_right'],
	[/told when (wrong|incorrect)|feedback|explanation|rationale/i, 'feedback_wrong'],
	[/^(right|key|correct|solution)|(right|correct) (answer|choice|option)|^answer( key)?$|what is right/i, 'right'],
	[/^(choices?|options?|answers?|alternatives?|distractors?)\b|^[a-h]$/i, 'choice'],
	[/^(question|stem|text|prompt|wording)\b/i, 'text'],
	[/^(kind|type)\b/i, 'kind'],
	[/^(points?|marks?|score|weight)\b/i, 'points'],
	[/^(topic|category|subject|chapter|unit)\b/i, 'topic'],
	[/^difficulty|^level/i, 'difficulty'],
	[/^(seconds|time)\b/i, 'seconds'],
	[/^(tags?|keywords?)\b/i, 'tags'],
	[/^hint/i, 'hint'],
	[/^source|^reference/i, 'source'],
	[/^(notes?|comments?|remarks?)\b/i, 'note']
];

/** What the columns of a table seem to hold, by their headings. */
export function guessColumns(header: string[]): QuestionColumn[] {
	const found = header.map((title): QuestionColumn => {
		const fits = HEADINGS.find(([pattern]) => pattern.test(title.trim()));
		return fits ? fits[1] : 'none';
	});
	// But for choices each is once: what comes again is left out.
	return found.map((column, i) => (column !== 'choice' && found.indexOf(column) < i ? 'none' : column));
}

/**
 * Reads questions from the rows of a table. What a row does not say well is doubtful and told; a row without a question is
 * told by its line.
 * @param columns what each column holds
 * @param newId a new id for each question and choice
 */
export function readRows(
	rows: { line: number; cells: string[] }[],
	columns: QuestionColumn[],
	newId: () => string
): ReadText {
	const unread: ReadText['unread'] = [];
	const questions = rows.flatMap(({ line, cells }): ReadQuestion[] => {
		const all = (column: QuestionColumn) =>
			columns.flatMap((one, i) => (one === column && cells[i]?.trim() ? [cells[i].trim()] : []));
		const one = (column: QuestionColumn) => all(column)[0] ?? '';
		if (one('text') === '') {
			const text = cells.filter(Boolean).join(' · ');
			if (text) unread.push({ line, text });
			return [];
		}
		return [questionOf(line, one, all('choice'), newId)];
	});
	return { questions, unread };
}

function questionOf(
	line: number,
	one: (column: QuestionColumn) => string,
	cells: string[],
	newId: () => string
): ReadQuestion {
	const texts =
		cells.length === 1
			? cells[0]
					.split(/\n|\s*[|;]\s+/)
					.map((text) => text.trim())
					.filter(Boolean)
			: cells;
	const choices = texts.map((text, i) => ({ letter: letterOf(i), text: withoutLetter(text, i), isMarked: false }));
	const right = one('right');
	const block: Block = { line, stem: [one('text')], choices, answer: right === '' ? null : asLetters(right, choices) };
	const isByHand = kindNamed(one('kind'));
	const asked: Block = isByHand ? { ...block, choices: [], answer: null } : block;
	const read = toQuestion(asked, newId);
	const doubts = isByHand ? [] : [...read.doubts];
	if (one('kind') && !isByHand && !isSameKind(one('kind'), read.question))
		doubts.push(
			`“${one('kind')}” is its kind in the table; it was read as ${QUESTION_KIND_NAMES[read.question.kind].toLowerCase()}.`
		);
	let question = { ...read.question };
	if (isByHand === 'upload') question = { ...question, kind: 'upload', most: 4 } as Question;

	const number = (column: QuestionColumn, name: string, from: number, to: number): number | undefined => {
		const text = one(column);
		if (text === '') return undefined;
		const value = Number(text.replace(',', '.'));
		if (Number.isFinite(value) && value >= from && value <= to) return value;
		doubts.push(`${name} “${text}” is not a number from ${from} to ${to}.`);
		return undefined;
	};
	question.points = number('points', 'Points', 0, 1_000) ?? question.points;
	const seconds = number('seconds', 'Seconds', 5, 10_800);
	if (seconds !== undefined) question.seconds = Math.round(seconds);
	const difficulty = one('difficulty').toLowerCase();
	if (DIFFICULTIES.includes(difficulty as Difficulty)) question.difficulty = difficulty as Difficulty;
	else if (difficulty) doubts.push(`Difficulty “${difficulty}” is none of ${DIFFICULTIES.join(', ')}.`);
	question.topic = one('topic')
		.split(/\s*[/>]\s*/)
		.filter(Boolean)
		.join(' / ')
		.slice(0, 120);
	const tags = [
		...new Set(
			one('tags')
				.split(/\s*[,;]\s*/)
				.filter(Boolean)
		)
	]
		.map((tag) => tag.slice(0, 60))
		.slice(0, 20);
	if (tags.length > 0) question.tags = tags;
	for (const [column, field, most] of [
		['hint', 'hint', 2_000],
		['source', 'source', 300],
		['note', 'note', 4_000]
	] as const)
		if (one(column)) question[field] = one(column).slice(0, most);
	const feedback = {
		...(one('feedback_right') && { right: one('feedback_right').slice(0, 2_000) }),
		...(one('feedback_wrong') && { wrong: one('feedback_wrong').slice(0, 2_000) })
	};
	if (Object.keys(feedback).length > 0) question.feedback = feedback;
	return { question, line, doubts };
}

const letterOf = (i: number) => String.fromCharCode('A'.charCodeAt(0) + i);

/** "a) north" at its place is "north". */
function withoutLetter(text: string, i: number): string {
	const lettered = /^\(?([A-Za-z])\s*[.)]\s*(.+)$/s.exec(text);
	return lettered && lettered[1].toUpperCase() === letterOf(i) ? lettered[2] : text;
}

/** What is right, by letters where it is told by words or by numbers: "north", "2", "1;3", "red, green". */
function asLetters(right: string, choices: Block['choices']): string {
	if (choices.length === 0) return right;
	const byText = (text: string) =>
		choices.find((choice) => choice.text.toLowerCase() === text.trim().toLowerCase())?.letter;
	const whole = byText(right);
	if (whole) return whole;
	for (const separator of [/\s*[;|\n]\s*/, /\s*,\s*/]) {
		const tokens = right.split(separator).filter(Boolean);
		const named = tokens.map((token) => byText(token) ?? numbered(token, choices));
		if (tokens.length > 0 && named.every((letter) => letter !== undefined)) return named.join(', ');
	}
	return right;
}

function numbered(token: string, choices: Block['choices']): string | undefined {
	return /^\d{1,2}$/.test(token) ? choices[Number(token) - 1]?.letter : undefined;
}

/** The kinds that a table can't tell by its choices and its key. */
function kindNamed(text: string): 'essay' | 'upload' | null {
	if (/^(essay|open|long|free)/i.test(text)) return 'essay';
	return /^(photo|upload|file)/i.test(text) ? 'upload' : null;
}

/** Whether a kind in words is what was read; words that name none say nothing. */
function isSameKind(text: string, { kind }: Question): boolean {
	const named = Object.entries(QUESTION_KIND_NAMES).find(([, name]) => name.toLowerCase() === text.toLowerCase());
	return !named || named[0] === kind;
}
