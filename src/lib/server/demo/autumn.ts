import { nanoid } from 'nanoid';
import { questionsOf, type AnswerValue, type Paper, type Question } from '$core/paper';
import { drawnFrom } from '$core/by-hand';
import { localDate, MINUTE } from '$core/time';
import { tellIncident } from '../incidents';
import { savePlan } from '../marking';
import { endSession } from '../session';
import { formOf } from '../sitting';
import { ZONE, type PlayedDay, type Sitter } from './played-day';

const DAY_MS = 24 * 60 * MINUTE;
export const AUTUMN = 'autumn';

/** An easy question is had right by most; the key of B2 is wrong, as its author will find out. */
const WRITTEN: [string, string, string, string, string][] = [
	['A buoy with horizontal bands, black above yellow, marks safe water to the…', 'north', 'south', 'east', 'west'],
	['A red can in region A, coming from sea, is left…', 'to port', 'to starboard', 'on either side', 'well astern'],
	[
		'Red and white vertical stripes on a buoy mean…',
		'safe water all round',
		'an isolated danger',
		'a channel parting',
		'a wreck'
	],
	['An isolated danger mark carries…', 'two black balls', 'two black cones', 'one red ball', 'a yellow cross'],
	['A special mark is coloured…', 'yellow', 'green', 'blue and white', 'red and black'],
	[
		'Two balls in a vertical line, by day, are shown by a vessel that is…',
		'aground',
		'not under command',
		'at anchor',
		'fishing'
	],
	['A cylinder, by day, is shown by a vessel…', 'constrained by her draught', 'towing', 'being pulled', 'under oars'],
	['One ball forward, by day, means…', 'at anchor', 'making way', 'fishing', 'diving'],
	['A cone, apex down, means a vessel…', 'under sail and power', 'at anchor', 'trawling', 'in distress'],
	['A rigid flag A means…', 'a diver down', 'a pilot on board', 'explosives', 'quarantine'],
	['One prolonged blast every two minutes comes from a power vessel…', 'making way', 'stopped', 'at anchor', 'aground'],
	['Five short blasts mean…', 'I doubt what you intend', 'I turn to port', 'I go astern', 'man overboard'],
	[
		'Two prolonged blasts and one short mean…',
		'I overtake on your starboard side',
		'I turn round',
		'I have no steering',
		'I anchor'
	],
	['The narrowest arc of visibility is that of the…', 'stern light', 'sidelight', 'masthead light', 'anchor light']
];

/** Marks, shapes and sounds, and an essay: what the past administration sat. */
export function marksAndSignals(): Paper {
	const questions = WRITTEN.map(([stem, ...texts], i): Question => {
		// The right one has its place by turns.
		const at = i % 4;
		const ids = ['a', 'b', 'c', 'd'];
		const others = texts.slice(1);
		const choices = ids.map((id, place) => ({ id, text: place === at ? texts[0] : others.shift()! }));
		return {
			id: `MS-${i + 1}`,
			kind: 'single',
			stem,
			points: 1,
			topic: i < 5 ? 'Marks / Buoys' : i < 10 ? 'Signals / Shapes' : 'Signals / Sounds',
			difficulty: i % 3 === 0 ? 'easy' : 'medium',
			choices,
			answer: ids[at]
		};
	});
	const essay: Question = {
		id: 'MS-15',
		kind: 'essay',
		stem: 'You make landfall at night and see two lights that the chart does not show. Say what you do, in order, and why.',
		points: 6,
		topic: 'Watchkeeping',
		words: { from: 60, to: 200 }
	};
	return {
		title: 'Marks and Signals',
		parts: [
			{ title: 'Marks', questions: questions.slice(0, 5), draw: null },
			{ title: 'Signals', questions: questions.slice(5), draw: null },
			{ title: 'On watch', questions: [essay], draw: null }
		]
	};
}

/**
 * The administration before this one, over and not closed yet: two sites, a marker at work, an alarm, somebody who is owed
 * a sitting, two whose answers are alike, and a question with a wrong key.
 */
export async function autumn(day: PlayedDay): Promise<void> {
	const { otium, now } = day;
	const { db } = otium;
	const on = (days: number) => localDate(now + days * DAY_MS, ZONE);
	await db('administration').insert({
		id: AUTUMN,
		name: 'Autumn Deck Officer Examinations',
		opens_on: on(-30),
		closes_on: on(-15),
		made_at: now - 40 * DAY_MS
	});
	const paper = marksAndSignals();
	const paperId = nanoid();
	await db('paper').insert({ id: paperId, title: paper.title, version: 1, content: JSON.stringify(paper) });
	await db('paper_allowed').insert({ administration_id: AUTUMN, paper_id: paperId });
	day.papers.set(paper.title, { id: paperId, paper });
	const sits = {
		paper: paper.title,
		minutes: 45,
		administration: AUTUMN,
		result: { passPercent: 50, creditPercent: 80, bands: BANDS }
	};
	const [first, point] = [now - 18 * DAY_MS, now - 17 * DAY_MS];
	day.clock.at = first - DAY_MS;
	const quayside = await day.plan('autumn-quayside', {
		...sits,
		groups: ['watch-a'],
		room: 'chart',
		opens: first,
		proctors: ['dunmore']
	});
	const lighthouse = await day.plan('autumn-point', {
		...sits,
		groups: ['azores'],
		room: 'lamp',
		opens: point,
		proctors: ['sorrel']
	});

	const people = await sit(day, quayside, first, paper, 1);
	day.clock.at = first + 30 * MINUTE;
	await tellIncident(otium, day.by('dunmore'), quayside, {
		id: 'autumn-alarm',
		kind: 'alarm',
		happenedAt: first + 26 * MINUTE,
		note: 'Fire alarm in the corridor, the room stayed seated.',
		done: 'Seven minutes given back to everyone.',
		minutes: 7,
		sittingIds: people.map(({ sittingId }) => sittingId),
		attachment: null
	});
	await handAllIn(day, people, first + 40 * MINUTE);
	day.clock.at = first + 60 * MINUTE;
	await endSession(otium, quayside, day.by('dunmore'));

	await handAllIn(day, await sit(day, lighthouse, point, paper, 0), point + 40 * MINUTE);
	day.clock.at = point + 60 * MINUTE;
	await endSession(otium, lighthouse, day.by('sorrel'));

	day.clock.at = point + DAY_MS;
	const markers = ['holt', 'brandreth'].map((key) => ({ id: day.by(key).id, share: 1 }));
	const rubric = [
		{ id: 'order', text: 'Safe order: look, fix, slow, call', points: 3 },
		{ id: 'why', text: 'Reasons', points: 2 },
		{ id: 'words', text: 'Clear words', points: 1 }
	];
	const plan = { markers, secondPercent: 20, tolerance: 1, rubric };
	await savePlan(otium, day.by('ode'), { administrationId: AUTUMN, paperId, questionId: 'MS-15' }, plan, 0);
}

const BANDS = [
	{ fromPercent: 50, name: 'Pass', message: '' },
	{ fromPercent: 80, name: 'Merit', message: 'Well done.' }
];

/** Everybody but so many comes, works and has answered. */
async function sit(day: PlayedDay, id: string, opens: number, paper: Paper, absent: number): Promise<Sitter[]> {
	await day.openDoor(id);
	const all = await day.expected(id);
	const people = all.slice(0, all.length - absent);
	await day.letAllIn(id, people, opens);
	const byId = new Map(questionsOf(paper).map((question) => [question.id, question]));
	const given = new Map<string, Map<string, AnswerValue>>();
	for (const [i, person] of people.entries()) {
		const form = (await formOf(day.otium.db, person.sittingId))!;
		// One looked at the paper beside theirs.
		const model = i === 7 ? given.get(people[6].sittingId)! : null;
		const answers = new Map(
			form.questions.map(({ id }) => [id, (id !== 'MS-15' && model?.get(id)) || answerOf(byId.get(id)!, person.number)])
		);
		given.set(person.sittingId, answers);
		day.clock.at = opens + 20 * MINUTE + i * 1_000;
		await day.otium.answers.save(
			person.sittingId,
			1,
			form.questions.map(({ id }, q) => ({
				seq: q + 1,
				questionId: id,
				value: answers.get(id)!,
				marked: false,
				struck: [],
				inViewMs: id === 'MS-15' ? 600_000 : 20_000 + Math.round(drawnFrom(`${person.number} ${id} time`) * 60_000)
			}))
		);
	}
	return people;
}

async function handAllIn(day: PlayedDay, people: Sitter[], from: number) {
	day.clock.at = from;
	for (const person of people) await day.handIn(person);
}

/** The abler somebody is and the easier the question, the likelier it is right; the same every day. */
function answerOf(question: Question, number: string): AnswerValue {
	if (question.kind !== 'single') return ESSAYS[Math.floor(drawnFrom(`${number} essay`) * ESSAYS.length)];
	const able = drawnFrom(`${number} able`);
	const easy = question.difficulty === 'easy' ? 0.35 : 0.1;
	const isRight = drawnFrom(`${number} ${question.id}`) < 0.2 + 0.65 * able + easy;
	const others = question.choices.map(({ id }) => id).filter((id) => id !== question.answer);
	// The able know what two balls mean, whatever the key says.
	if (question.id === 'MS-6') {
		const sees = drawnFrom(`${number} balls`);
		return sees < able - 0.15 ? others[0] : sees < 0.8 ? question.answer : others[1];
	}
	return isRight ? question.answer : others[Math.floor(drawnFrom(`${question.id} ${number} which`) * others.length)];
}

const ESSAYS = [
	'First I check the position by every means that I have, and slow down. Then I look the lights up in the list and compare their characters. I call the master, note the time, and do not go on into water that I am not sure of.',
	'I would steer away from them and go on. They are probably fishing boats, as these often are not on the chart.',
	'Count the periods with a stopwatch and take bearings of both. If they do not agree with anything charted I assume that my position is wrong before I assume that the chart is. I reduce speed, put the echo sounder on and call the master early, because he can only help while there is still room.',
	'Call the master. Wait for him. Keep the course.'
];
