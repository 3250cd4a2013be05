import type { Paper, Question } from '$core/paper';

/** What an author has added to a paper since it was frozen: some of it is not ready, as on any day of writing. */
const ADDED: Question[] = [
	{
		id: 'added1',
		kind: 'single',
		stem: 'Two black cones, points upwards, on a pillar mark: on which side do you pass it?',
		points: 2,
		topic: 'Buoyage',
		choices: [
			{ id: 'n', text: 'north of it' },
			{ id: 's', text: 'south of it' },
			{ id: 'e', text: 'east of it' },
			{ id: 'x', text: 'none of the above' }
		],
		answer: 'n'
	},
	{
		id: 'added2',
		kind: 'single',
		stem: 'Which of these is not a cardinal mark?',
		points: 2,
		topic: 'Buoyage',
		choices: [
			{ id: 'a', text: 'two cones, base to base' },
			{ id: 'b', text: 'two cones, point to point' },
			{ id: 'c', text: 'two black balls, one above the other' }
		],
		answer: 'c'
	},
	{
		id: 'added3',
		kind: 'numeric',
		stem: 'A vessel makes good 7.5 nautical miles in 50 minutes. What is her speed over the ground?',
		points: 2,
		topic: 'Chart work',
		answer: 9,
		tolerance: { kind: 'absolute', amount: 0.05 },
		unit: 'knots'
	}
];

/** The next version of that paper as it is being written: three questions more, and its first part a pool. */
export function beingWritten(paper: Paper): Paper {
	const [first, ...others] = paper.parts;
	const questions = [...first.questions, ...ADDED];
	return { ...paper, parts: [{ ...first, questions, draw: Math.floor(questions.length / 2) }, ...others] };
}
