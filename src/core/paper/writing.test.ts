import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
	aboutPart,
	comparePapers,
	doubtsOf,
	doubtsOfPaper,
	eachGets,
	editPaper,
	isEdited,
	keyInWords,
	newQuestion,
	readText,
	withoutStaleKey,
	type Paper,
	type PaperEdit,
	type Question
} from '.';
import { runs } from '$core/testing/runs';

const single = (id: string, more: Partial<Extract<Question, { kind: 'single' }>> = {}): Question => ({
	id,
	kind: 'single',
	stem: `Which is ${id}?`,
	points: 1,
	topic: '',
	choices: [
		{ id: 'a', text: 'north' },
		{ id: 'b', text: 'south' }
	],
	answer: 'a',
	...more
});
const paper = (draw: number | null, ...ids: string[]): Paper => ({
	title: 'Numbers',
	parts: [{ title: 'A', draw, questions: ids.map((id) => single(id)) }]
});
let made = 0;
const newId = () => `n${++made}`;

describe('a change of a paper', () => {
	const at = { part: 0, index: 1 };

	it('is done, and its undo takes it back', () => {
		fc.assert(
			fc.property(
				fc.array(fc.tuple(fc.nat(9), fc.nat(4), fc.nat(4), fc.nat(4)), { minLength: 1, maxLength: 25 }),
				(acts) => {
					const start: Paper = {
						title: 'Numbers',
						parts: [
							{ title: 'A', draw: null, questions: ['1', '2', '3'].map((id) => single(id)) },
							{ title: 'B', draw: 1, questions: ['4', '5'].map((id) => single(id)) }
						]
					};
					let now = start;
					const undos: PaperEdit[] = [];
					for (const [what, part, index, other] of acts) {
						const edit = editOf(now, what, part, index, other);
						const result = edit && editPaper(now, edit);
						if (!result) continue;
						expect(result.outcome).toBe('done');
						if (result.outcome !== 'done') continue;
						undos.push(result.undo);
						now = result.paper;
						const ids = now.parts.flatMap(({ questions }) => questions.map(({ id }) => id));
						expect(new Set(ids).size).toBe(ids.length);
					}
					for (const undo of undos.reverse()) {
						const result = editPaper(now, undo);
						expect(result.outcome).toBe('done');
						if (result.outcome === 'done') now = result.paper;
					}
					expect(now).toEqual(start);
				}
			),
			{ numRuns: runs(150) }
		);
	});

	it('of a text that questions share is made in all of them, and in none where one is not as it was', () => {
		const stimulus = { id: 's', text: 'Before.' };
		const start: Paper = {
			title: '',
			parts: [{ title: '', draw: null, questions: ['1', '2'].map((id) => ({ ...single(id), stimulus })) }]
		};
		const edit = { kind: 'stimulus' as const, before: stimulus, after: { ...stimulus, text: 'After.' } };
		const done = editPaper(start, edit);
		if (done.outcome !== 'done') throw new Error(done.outcome);
		expect(done.paper.parts[0].questions.map((one) => one.stimulus?.text)).toEqual(['After.', 'After.']);
		expect(isEdited(done.paper, edit)).toBe(true);
		// Told again, or by somebody who has not seen it.
		expect(editPaper(done.paper, edit).outcome).toBe('changed_since');
		expect(editPaper(start, { ...edit, before: { ...stimulus, id: 'other' } }).outcome).toBe('gone');
	});

	it('of a question that somebody else has changed is told, with theirs', () => {
		const before = single('1');
		const theirs = single('1', { stem: 'Theirs?' });
		const now = { ...paper(null, '1', '2'), parts: [{ title: 'A', draw: null, questions: [theirs, single('2')] }] };
		const mine = { kind: 'question', before, after: single('1', { stem: 'Mine?' }), at } as const;
		expect(editPaper(now, mine)).toEqual({ outcome: 'changed_since', theirs });
		expect(editPaper(now, { kind: 'remove_question', before })).toEqual({ outcome: 'changed_since', theirs });
		expect(editPaper(paper(null, '2'), mine)).toEqual({ outcome: 'gone' });
	});

	it('of two different questions by two people are both done', () => {
		const start = paper(null, '1', '2');
		const change = (id: string): PaperEdit => ({
			kind: 'question',
			before: single(id),
			after: single(id, { stem: `New ${id}` }),
			at
		});
		const first = editPaper(start, change('1'));
		const both = first.outcome === 'done' ? editPaper(first.paper, change('2')) : first;
		expect(both).toMatchObject({
			outcome: 'done',
			paper: { parts: [{ questions: [{ stem: 'New 1' }, { stem: 'New 2' }] }] }
		});
	});
});

/** A change that can be done to the paper as it is, or none. */
function editOf(now: Paper, what: number, part: number, index: number, other: number): PaperEdit | null {
	const p = now.parts.length === 0 ? -1 : part % now.parts.length;
	const questions = now.parts[p]?.questions ?? [];
	const question = questions[index % Math.max(1, questions.length)];
	const about = p < 0 ? null : aboutPart(now.parts[p]);
	switch (what) {
		case 0:
			return p < 0 ? null : { kind: 'question', before: null, after: single(newId()), at: { part: p, index } };
		case 1:
			if (!question) return null;
			return { kind: 'question', before: question, after: { ...question, stem: newId() }, at: { part: p, index } };
		case 2:
			return question ? { kind: 'remove_question', before: question } : null;
		case 3:
			if (!question) return null;
			return { kind: 'move_question', id: question.id, to: { part: other % now.parts.length, index: 0 } };
		case 4:
			return about && { kind: 'part', index: p, before: about, after: { title: newId(), draw: other } };
		case 5:
			return {
				kind: 'add_part',
				index: other % (now.parts.length + 1),
				part: { title: newId(), draw: null, questions: [] }
			};
		case 6:
			return about && { kind: 'remove_part', index: p, before: about };
		case 7: {
			// Under a text of one's own, or under the one that another question has.
			const there = now.parts.flatMap((one) => one.questions).find(({ stimulus }) => stimulus)?.stimulus;
			const stimulus = (other % 2 === 0 && there) || { id: newId(), text: 'See.' };
			return question
				? { kind: 'question', before: question, after: { ...question, stimulus }, at: { part: p, index } }
				: null;
		}
		case 8: {
			const before = question?.stimulus;
			return before ? { kind: 'stimulus', before, after: { ...before, text: newId() } } : null;
		}
		default:
			return about && { kind: 'move_part', title: about.title, from: p, to: other % now.parts.length };
	}
}

describe('what is doubtful', () => {
	const codes = (question: Question) => doubtsOf(question, {}).map(({ code }) => code);

	it('about a question', () => {
		expect(codes(single('1'))).toEqual([]);
		expect(codes(single('1', { answer: 'z' }))).toEqual(['no_right_answer']);
		const choices = [
			{ id: 'a', text: 'North' },
			{ id: 'b', text: ' north' },
			{ id: 'c', text: 'All of the above' }
		];
		expect(codes(single('1', { choices }))).toEqual(['equal_choices', 'keeps_place']);
		expect(codes(single('1', { stem: 'Which is not a buoy?' }))).toEqual(['unmarked_negative']);
		expect(codes(single('1', { stem: 'Which is NOT a buoy?' }))).toEqual([]);
		expect(codes(single('1', { stem: 'All are buoys except' }))).toEqual(['unmarked_negative']);
		for (const stem of ['A vessel not under command shows', 'Keep at least a mile off when'])
			expect(codes(single('1', { stem })), stem).toEqual([]);
	});

	it('can be put right by one press, and is right then', () => {
		const numeric: Question = {
			id: '1',
			kind: 'numeric',
			stem: 'How deep?',
			points: 1,
			topic: '',
			answer: 4.8,
			tolerance: { kind: 'absolute', amount: 0 },
			unit: 'm'
		};
		for (const question of [numeric, single('1', { stem: 'Which is not a buoy?' })]) {
			const [{ fix }] = doubtsOf(question, {});
			expect(doubtsOf(fix!.question, {})).toEqual([]);
		}
	});

	it('about a pool: too few, and points that differ', () => {
		expect(doubtsOfPaper(paper(3, '1', '2')).map(({ code }) => code)).toEqual(['too_few_in_pool']);
		const unequal = paper(1, '1', '2');
		unequal.parts[0].questions[1] = single('2', { points: 2 });
		expect(doubtsOfPaper(unequal).map(({ code }) => code)).toEqual(['points_differ']);
	});

	it('about all: the longest choice is right, the same letter, a language that is not whole', () => {
		const choices = [
			{ id: 'a', text: 'the longest choice of all' },
			{ id: 'b', text: 'short' }
		];
		const five = paper(null, '1', '2', '3', '4', '5');
		five.parts[0].questions = five.parts[0].questions.map((question) => single(question.id, { choices }));
		five.parts[0].questions[0].inOther = { pt: { stem: 'Qual?', texts: { a: 'a maior', b: 'curta' } } };
		expect(doubtsOfPaper(five).map(({ code }) => code)).toEqual([
			'longest_is_right',
			'same_letter',
			'language_not_whole'
		]);
		expect(doubtsOfPaper(five).at(-1)!.questionIds).toEqual(['2', '3', '4', '5']);
	});
});

describe('a key', () => {
	it('names nothing that was removed', () => {
		const choices = [{ id: 'a', text: 'north' }];
		expect(withoutStaleKey(single('1', { choices, answer: 'b' }))).toMatchObject({ answer: '' });
		const multiple: Question = {
			...single('1'),
			kind: 'multiple',
			choices,
			answer: ['a', 'b'],
			partial: true
		} as Question;
		expect(withoutStaleKey(multiple)).toMatchObject({ answer: ['a'] });
		const matching = newQuestion('matching', newId);
		if (matching.kind !== 'matching') throw new Error(matching.kind);
		const [first, second] = matching.items;
		const shorter = { ...matching, items: [second], matches: matching.matches.slice(1) };
		expect(withoutStaleKey(shorter)).toMatchObject({ answer: { [second.id]: matching.answer[second.id] } });
		expect(Object.keys((withoutStaleKey(shorter) as typeof shorter).answer)).not.toContain(first.id);
	});
});

describe('questions read from text', () => {
	const read = (text: string) => readText(text, newId);

	it('numbered, lettered, the right one starred, bold or named', () => {
		const { questions, unread } = read(`Tides, spring term

1. Spring tides come shortly after (2 points)
a) full moon
*b) new and full moon
c) the quarters

2) Port is
   A. **left**
   B. right
Question 3: Which are buoys?
a. can
b. cone
c. church
Answer: a and b`);
		expect(unread).toEqual([{ line: 1, text: 'Tides, spring term' }]);
		expect(questions.map(({ line, doubts }) => [line, doubts])).toEqual([
			[3, []],
			[8, []],
			[11, []]
		]);
		const [tides, port, buoys] = questions.map(({ question }) => question);
		expect(tides).toMatchObject({ kind: 'single', points: 2, stem: 'Spring tides come shortly after' });
		expect(tides.kind === 'single' && tides.choices.find(({ id }) => id === tides.answer)!.text).toBe(
			'new and full moon'
		);
		expect(port.kind === 'single' && port.choices.find(({ id }) => id === port.answer)!.text).toBe('left');
		expect(buoys.kind === 'multiple' && buoys.answer).toHaveLength(2);
	});

	it('other kinds by their answer', () => {
		const { questions } = read(`1. The range is the difference.
Answer: true
2. High water 6.4 m, low water 1.6 m. The range?
Answer: 4,8 m
3. The bearing?
Answer: -7
4. Left of the ship
Answer: port; larboard
5. Explain the rule of twelfths.
in your own words`);
		expect(questions.map(({ question }) => question)).toMatchObject([
			{ kind: 'true_false', answer: true },
			{ kind: 'numeric', answer: 4.8, unit: 'm', tolerance: { kind: 'relative', amount: 0.01 } },
			{ kind: 'numeric', answer: -7, unit: '', tolerance: { amount: 0 } },
			{ kind: 'short', accepted: ['port', 'larboard'] },
			{ kind: 'essay', stem: 'Explain the rule of twelfths.\nin your own words' }
		]);
		expect(questions[1].doubts).toEqual(['No tolerance is given: 1 % is assumed.']);
		expect(questions[4].doubts).toHaveLength(1);
	});

	it.each([
		['1 000 m', 1000, 'm'],
		['1/2', 0.5, ''],
		['3 1/2', 3.5, ''],
		['3.5e3', 3500, ''],
		['12,500 kg', 12500, 'kg'],
		['1.000,5', 1000.5, ''],
		['9.81 m/s²', 9.81, 'm/s^2']
	])('a line “Answer: %s” is the number that a candidate would type', (answer, value, unit) => {
		const { question, doubts } = read(`1. How much?\nAnswer: ${answer}`).questions[0];
		expect(question).toMatchObject({ kind: 'numeric', answer: value, unit });
		if (answer.startsWith('12,')) expect(doubts.join(' ')).toContain('can be read as 12.5 or as 12500');
	});

	it('what only begins with a number is words, and that is told', () => {
		const { question, doubts } = read('1. How much?\nAnswer: 1.5 to 2.5').questions[0];
		expect(question).toMatchObject({ kind: 'short', accepted: ['1.5 to 2.5'] });
		expect(doubts.join(' ')).toContain('can’t be read as one');
	});

	it('doubts are told, and no line is dropped', () => {
		const { questions, unread } = read('1. What?\na) one\nb) two\nAnswer: D\nand more\n2.\na) x\nb)');
		expect(questions[0].doubts).toEqual(['The answer “D” is not one of the choices.']);
		expect(unread).toEqual([{ line: 5, text: 'and more' }]);
		expect(questions[1].doubts).toEqual([
			'There is no question text.',
			'No choice is marked as right.',
			'A choice is empty.'
		]);
	});

	it('a list of answers at the end is the key, and no part of the last question', () => {
		const { questions, unread, keys } = read(
			`1. One?\na) x\nb) y\n2. Two?\na) x\nb) y\n3. Three quarters of what?\n\nAnswers\n1 B, 2 A\n3. 3/4`
		);
		expect(questions.map(({ question }) => keyInWords(question))).toEqual(['y', 'x', '0.75 ± 1 %']);
		expect(questions[2].question.stem).toBe('Three quarters of what?');
		expect([unread, keys]).toEqual([[], 3]);
	});

	it.each([
		['Answer key: 1 B 2 A', 2],
		['**Answers**\n1. b\n2. a', 2],
		['Answers:\n1) B\t2) A', 2],
		['# Solutions\n1: B; 2: A; 9: C', 2]
	])('also as %j', (list, keys) => {
		const given = read(`1. One?\na) x\nb) y\n2. Two?\na) x\nb) y\n${list}`);
		expect(given.questions.map(({ question }) => keyInWords(question))).toEqual(['y', 'x']);
		expect(given.keys).toBe(keys);
		expect(given.unread.map(({ text }) => text)).toEqual(
			list.includes('9') ? ['The list of answers names C for question 9, which is not there.'] : []
		);
	});

	it('a question that asks for answers is no list of them', () => {
		const { questions } = read('1. Name two ports.\nAnswers: Dover; Calais\n2. And two seas.\nAnswer: North Sea');
		expect(questions.map(({ question }) => question.kind)).toEqual(['short', 'short']);
	});

	it('headings name parts, and are glued to nothing; what they say of points counts', () => {
		const { questions, unread } = read(
			'# Tides\n1. One?\na) x\nb) **y**\nPart 2: Short answers (2 marks each)\n2. Two?\nAnswer: B\n**Winds**\nRead this first.\n3. Three?\nAnswer: C'
		);
		expect(questions.map(({ part, question }) => [part, question.points])).toEqual([
			['Tides', 1],
			['Part 2: Short answers (2 marks each)', 2],
			['Winds', 1]
		]);
		expect(questions[0].question).toMatchObject({ choices: [{ text: 'x' }, { text: 'y' }] });
		expect(unread.map(({ text }) => text)).toEqual(['Tides', 'Read this first.']);
	});

	it('everyday marks: a bold line with its letter, full width, choices in a line, “Correct answer”, decimals and years', () => {
		const right = (text: string) => keyInWords(read(text).questions[0].question);
		expect(right('1. What?\na) x\n**b) y**')).toBe('y');
		expect(right('１．何？\nａ）x\n＊ｂ）y'.replace('＊', '*'))).toBe('y');
		expect(right('1. What?\nA. one\tB. two\tC. three\nKey: C')).toBe('three');
		expect(right('1. What?\na) x\nb) y\nCorrect answer: B')).toBe('y');
		expect(right('1. What?\na) x\nb) y\nThe right answer is: A')).toBe('x');
		expect(
			read('1. A beam.\n2.5 m is its length.\n1912. A year.\n2. Next').questions.map(({ question }) => question.stem)
		).toEqual(['A beam.\n2.5 m is its length.\n1912. A year.', 'Next']);
		expect(read('**6. Bold?**\na) x').questions[0].question.stem).toBe('Bold?');
	});

	it('every word of any text is somewhere', () => {
		const line = fc.constantFrom(
			'1. stem alpha',
			'2) beta',
			'a) gamma',
			'B. delta',
			'*c) epsilon',
			'Answer: B',
			'zeta',
			''
		);
		fc.assert(
			fc.property(fc.array(line, { maxLength: 20 }), (lines) => {
				const all = JSON.stringify(read(lines.join('\n')));
				for (const word of lines.join(' ').match(/alpha|beta|gamma|delta|epsilon|zeta/g) ?? [])
					expect(all).toContain(word);
			})
		);
	});
});

describe('what differs between two versions', () => {
	it('question by question, and of the whole', () => {
		const before = paper(null, '1', '2', '3');
		const after: Paper = {
			title: 'Numbers',
			script: 'Listen.',
			parts: [
				{ title: 'A', draw: 1, questions: [single('1', { answer: 'b', points: 2 }), single('9')] },
				{ title: 'B', draw: null, questions: [single('3')] }
			]
		};
		const { about, questions } = comparePapers(before, after);
		expect(about).toEqual(['The script has changed.', 'A deals 1 instead of all.', 'B is new.']);
		expect(questions.map(({ id, what, details }) => [id, what, details])).toEqual([
			['1', 'changed', ['key north → south', 'points 1 → 2']],
			['9', 'added', []],
			['3', 'moved', ['from A to B']],
			['2', 'removed', []]
		]);
		expect(comparePapers(after, after)).toEqual({ about: [], questions: [] });
	});
});

describe('what each candidate gets', () => {
	it('in words', () => {
		const words = (of: Paper) =>
			eachGets(of)
				.map(({ text }) => text)
				.join('');
		expect(words(paper(null))).toBe('There is no question yet.');
		expect(words(paper(null, '1', '2'))).toContain('2 questions, 2 points, about 5 minutes. Everybody gets the same');
		expect(words(paper(1, '1', '2'))).toContain('1 of 2 questions, 1 point, about 5 minutes. Two neighbours share 0.5');
	});
});
