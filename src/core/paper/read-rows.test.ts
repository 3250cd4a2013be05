import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { guessColumns, readRows, type QuestionColumn } from '.';

let ids = 0;
const newId = () => `n${++ids}`;
const read = (columns: QuestionColumn[], ...rows: string[][]) =>
	readRows(
		rows.map((cells, i) => ({ line: i + 2, cells })),
		columns,
		newId
	);

describe('a table of questions', () => {
	it.each([
		['Question;A;B;C;D;Answer;Points', 'text choice choice choice choice right points'],
		['Stem;Option 1;Option 2;Correct answer;Category;Level', 'text choice choice right topic difficulty'],
		['ID;Text;Answers;Right;Feedback;Marks', 'none text choice right feedback_wrong points'],
		[
			'Part;Number;Kind;Question;Choices;Right;Points;Topic;Difficulty;Seconds;Tags;Source',
			'none none kind text choice right points topic difficulty seconds tags source'
		]
	])('is understood by its headings: %s', (header, columns) =>
		expect(guessColumns(header.split(';'))).toEqual(columns.split(' '))
	);

	const CHOICES: QuestionColumn[] = ['text', 'choice', 'choice', 'choice', 'right'];
	it.each([
		['B', ['south']],
		['south', ['south']],
		['SOUTH', ['south']],
		['2', ['south']],
		['A, C', ['north', 'east']],
		['1;3', ['north', 'east']],
		['north, east', ['north', 'east']],
		['East | north', ['north', 'east']]
	])('tells what is right by letter, number or words: %s', (right, texts) => {
		const [{ question, doubts }] = read(CHOICES, ['Where?', 'north', 'south', 'east', right]).questions;
		expect(doubts).toEqual([]);
		if (question.kind !== 'single' && question.kind !== 'multiple') throw new Error(question.kind);
		const named = [question.answer].flat().map((id) => question.choices.find((choice) => choice.id === id)!.text);
		expect(named).toEqual(texts);
	});

	it('may hold all choices in one cell, with or without letters', () => {
		const [one, two] = read(
			['text', 'choice', 'right'],
			['Which?', 'a) red\nb) green', 'green'],
			['Which?', 'red | green | white', 'A']
		).questions;
		expect(one.question).toMatchObject({ kind: 'single', choices: [{ text: 'red' }, { text: 'green' }] });
		expect(two.question).toMatchObject({ choices: [{ text: 'red' }, { text: 'green' }, { text: 'white' }] });
	});

	it('takes the rest of a row along, and says what it can’t take', () => {
		const columns: QuestionColumn[] = [
			'text',
			'right',
			'points',
			'topic',
			'difficulty',
			'seconds',
			'tags',
			'feedback_wrong',
			'kind'
		];
		const [good, bad, by] = read(
			columns,
			['Range?', '4.8 m', '2,5', 'Tides > Heights', 'Hard', '90', 'springs, chart', 'Take low from high.', ''],
			['Range?', '5 m', 'many', '', 'fiendish', '1', '', '', 'Matching'],
			['Discuss.', 'something', '', '', '', '', '', '', 'Essay']
		).questions;
		expect(good.question).toMatchObject({
			kind: 'numeric',
			answer: 4.8,
			points: 2.5,
			topic: 'Tides / Heights',
			difficulty: 'hard',
			seconds: 90,
			tags: ['springs', 'chart'],
			feedback: { wrong: 'Take low from high.' }
		});
		expect(bad.doubts.join(' ')).toMatch(/Points “many”.*Seconds “1”.*“fiendish” is none of easy, medium, hard/);
		expect(bad.doubts.join(' ')).toContain('“Matching” is its kind in the table; it was read as number.');
		expect(by.question.kind).toBe('essay');
	});

	it('loses no row, whatever stands in it', () => {
		const cell = fc.oneof(fc.constant(''), fc.string(), fc.constantFrom('A', '2', 'red', '"', '\n', 'a) x'));
		const columns = fc.constantFrom<QuestionColumn>('text', 'choice', 'right', 'points', 'kind', 'tags', 'none');
		fc.assert(
			fc.property(fc.array(columns, { maxLength: 6 }), fc.array(fc.array(cell, { maxLength: 6 })), (kinds, rows) => {
				const { questions, unread } = read(kinds, ...rows);
				const told = new Set([...questions, ...unread].map(({ line }) => line));
				for (const [i, cells] of rows.entries())
					if (cells.some(Boolean) && !told.has(i + 2)) expect(cells.join('').trim()).toBe('');
			})
		);
	});
});
