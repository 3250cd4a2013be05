import { nanoid } from 'nanoid';
import type { Paper, Question } from '$core/paper';
import type { Step } from '$core/steps';
import { saveHelp, type HelpContact } from '../contacts';
import type { Writing } from '../house';
import { saveSteps, tickStep } from '../steps';
import type { Actor } from '$core/sitting';

const CONTACTS: HelpContact[] = [
	{
		problem: 'Signing in',
		name: 'Exams desk, Quayside',
		telephone: '+44 1632 960 110',
		email: 'exams@saltmarsh.example',
		hours: '08:00 to 18:00',
		forCandidates: true
	},
	{
		problem: 'Network and devices',
		name: 'Imre Quill',
		telephone: '+44 1632 960 142',
		email: 'quill@saltmarsh.example',
		hours: '',
		forCandidates: false
	},
	{
		problem: 'Illness or alarm',
		name: 'Harbour porter',
		telephone: '+44 1632 960 101',
		email: '',
		hours: 'day and night',
		forCandidates: true
	}
];

const choice = (id: string, stem: string, texts: string[], right: number, said: string): Question => ({
	id,
	kind: 'single',
	stem,
	points: 1,
	topic: 'Practice',
	choices: texts.map((text, i) => ({ id: 'abcd'[i], text })),
	answer: 'abcd'[right],
	feedback: { right: 'Well seen.', wrong: said }
});

/** A paper to get to know the screens with; nothing in it is in any other. */
const FIRST_STEPS: Paper = {
	title: 'First Steps',
	practice: { tries: 2, costPercent: 50 },
	card: { subject: 'Seamanship', level: 'First year' },
	instructions: 'Four small questions, to get to know the screens.',
	parts: [
		{
			title: 'All',
			draw: null,
			questions: [
				choice(
					'FS-1',
					'Which side of a vessel is port, looking forward?',
					['left', 'right'],
					0,
					'Port and left have four letters each.'
				),
				{
					id: 'FS-2',
					kind: 'true_false',
					stem: 'A knot is a speed of one nautical mile an hour.',
					points: 1,
					topic: 'Practice',
					answer: true
				},
				{
					id: 'FS-3',
					kind: 'numeric',
					stem: 'A boat makes 6 knots. How far does she go in 90 minutes?',
					points: 2,
					topic: 'Practice',
					answer: 9,
					tolerance: { kind: 'absolute', amount: 0 },
					unit: 'nautical miles',
					hint: 'An hour and a half.'
				},
				choice(
					'FS-4',
					'The rope that holds a boat’s bow to the quay is the…',
					['bow line', 'halyard', 'sheet'],
					0,
					'The other two hoist and trim sails.'
				)
			]
		}
	]
} as Paper;

const HANDLING: Step = {
	id: 'boat-handling',
	title: 'Boat handling, afloat',
	paperTitle: null,
	afterId: null,
	leastPercent: null
};
const STABILITY: Step = {
	id: 'ship-stability',
	title: 'Ship Stability',
	paperTitle: 'Ship Stability',
	afterId: 'boat-handling',
	leastPercent: null
};

/** Whom to turn to, an order of parts in which two have something left to do, and a paper for practice. */
export async function aroundTheDay(otium: Writing, by: Actor): Promise<void> {
	const { db } = otium;
	const { administration_id: id } = await db('session').orderBy('opens', 'desc').first('administration_id');
	await saveHelp(otium, by, id, { was: [], contacts: CONTACTS });
	await saveSteps(otium, by, id, { was: [], steps: [HANDLING, STABILITY] });
	const expected: string[] = await db('sitting')
		.join('paper', 'paper.id', 'sitting.paper_id')
		.where({ title: 'Ship Stability', administration_id: id })
		.orderBy('candidate_id')
		.distinct('candidate_id')
		.pluck('candidate_id');
	const begun: string[] = await db('sitting')
		.whereIn('candidate_id', expected)
		.whereNot({ state: 'expected' })
		.pluck('candidate_id');
	const open = expected.filter((one) => !begun.includes(one)).slice(0, 2);
	const done = expected.filter((one) => !open.includes(one));
	await tickStep(otium, by, HANDLING, { candidateIds: done, on: true, why: null });
	await db('paper').insert({
		id: nanoid(),
		title: FIRST_STEPS.title,
		version: 1,
		content: JSON.stringify(FIRST_STEPS)
	});
}
