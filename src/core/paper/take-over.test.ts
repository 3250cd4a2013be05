import { expect, it } from 'vitest';
import {
	editPaper,
	inKind,
	isEdited,
	keyInWords,
	readText,
	takeOver,
	type Paper,
	type Question,
	type QuestionKind
} from '.';

let made = 0;
const newId = () => `n${++made}`;
const TEXT =
	'1. Zero?\na) x\nb) **y**\n# Tides\n2. One?\nAnswer: 3.5 m\n# Winds\n3. Two?\na) True\nb) *False\n# Tides\n4. Three?\nAnswer: ebb';
const read = () => readText(TEXT.replace('b) *False', '*b) False'), newId).questions;
const shapeOf = (paper: Paper) => paper.parts.map(({ title, questions }) => [title, questions.map(({ stem }) => stem)]);

it('headings become parts, once each; one undo takes all of it back, and it is one change when sent twice', () => {
	for (const parts of [[], [{ title: '', questions: [], draw: null }]]) {
		const paper: Paper = { title: 'P', parts };
		const edit = takeOver(paper, read(), 0, true);
		const edited = editPaper(paper, edit);
		if (edited.outcome !== 'done') throw new Error(edited.outcome);
		expect(shapeOf(edited.paper)).toEqual([
			['', ['Zero?']],
			['Tides', ['One?', 'Three?']],
			['Winds', ['Two?']]
		]);
		expect([isEdited(paper, edit), isEdited(edited.paper, edit)]).toEqual([false, true]);
		expect(editPaper(edited.paper, edited.undo)).toMatchObject({ outcome: 'done', paper });
	}
});

it('the part that an empty paper begins with takes the name of the first heading; without parts all go to one', () => {
	const paper: Paper = { title: 'P', parts: [{ title: '', questions: [], draw: null }] };
	const shape = (asParts: boolean) => {
		const edited = editPaper(paper, takeOver(paper, read().slice(1), 0, asParts));
		return edited.outcome === 'done' && shapeOf(edited.paper);
	};
	expect(shape(true)).toEqual([
		['Tides', ['One?', 'Three?']],
		['Winds', ['Two?']]
	]);
	expect(shape(false)).toEqual([['', ['One?', 'Two?', 'Three?']]]);
});

it('all or nothing: where one change of several can’t be made, none is', () => {
	const paper: Paper = { title: 'P', parts: [] };
	const [{ question }] = read();
	const at = { part: 0, index: 0 };
	const part = { title: '', questions: [], draw: null };
	const edit = {
		kind: 'several' as const,
		edits: [
			{ kind: 'add_part' as const, index: 0, part },
			{ kind: 'question' as const, before: null, after: question, at: { part: 7, index: 0 } },
			{ kind: 'question' as const, before: null, after: question, at }
		]
	};
	expect(editPaper(paper, edit)).toEqual({ outcome: 'gone' });
});

it('a question changes its kind and keeps what fits', () => {
	const [single, number, truth, short] = read().map(({ question }) => question);
	const key = (question: Question, kind: QuestionKind) => keyInWords(inKind(question, kind, newId));
	expect(key(single, 'multiple')).toBe('y');
	expect(key(single, 'short')).toBe('y');
	expect(key(inKind(single, 'multiple', newId), 'single')).toBe('y');
	expect(key(number, 'short')).toBe('3.5 m');
	expect(key(inKind(number, 'short', newId), 'numeric')).toBe('3.5 m ± 1 %');
	expect(key(truth, 'single')).toBe('False');
	expect(key(inKind(truth, 'single', newId), 'true_false')).toBe('False');
	expect(key(short, 'single')).toBe('ebb');
	for (const question of [single, number, truth, short])
		for (const kind of ['essay', 'upload', 'ordering', 'matching', 'fill_in', 'calculated'] as const) {
			const other = inKind(question, kind, newId);
			expect(other).toMatchObject({ id: question.id, stem: question.stem, points: question.points, kind });
			expect(Object.keys(inKind(other, 'essay', newId)).sort()).toEqual([
				'id',
				'kind',
				'points',
				'stem',
				'topic',
				'words'
			]);
		}
});
