import { agreementOf, drawnFrom, handStanding, NO_PLAN, planFault, type Agreement, type HandPlan } from '$core/by-hand';
import { isBlank, isMarkedByHand, questionsOf, type AnswerValue, type Question } from '$core/paper';
import { fail } from '$core/problem';
import { groupBy, openSecret, sealSecret, transact, type Query } from '../db';
import type { Writing } from '../house';
import { appendToLogbook, type NewEntry } from '../logbook';
import { paperVersion } from '../paper';
import { besideEach, type Beside } from './beside';
import { markKey, marksGiven, type GivenMark } from './hand-points';
import { countingSittings, type Counting } from './results-of';
import { treatmentsFor } from './treatments';

export type Asked = { administrationId: string; paperId: string; questionId: string };

/** An answer that a person marks, without a word about whose it is. */
export type ToMark = { sittingId: string; value: AnswerValue; marks: GivenMark[] };

/** How the marking of one question stands. */
export type HandProgress = {
	administrationId: string;
	paperId: string;
	paper: string;
	question: Question;
	plan: HandPlan;
	revision: number;
	answers: number;
	/** Nothing is left to do for these; of the rest so many wait for a first, second and third marker. */
	settled: number;
	open: { first: number; second: number; third: number };
	/** By marker: what waits for them, and what they have marked. */
	byMarker: { id: string; waits: number; done: number }[];
	/** Answers that wait and for which nobody is named. */
	unnamed: number;
	agreement: Agreement;
	/** At the pace so far; null: nothing was marked yet. */
	minutesLeft: number | null;
};

type Question4Hand = Question & { kind: 'essay' | 'upload' };

/** The questions of a paper that people mark. */
async function handQuestions(db: Query, paperId: string): Promise<Question4Hand[]> {
	return questionsOf((await paperVersion(db, paperId)).content).filter((question) => isMarkedByHand(question));
}

/** The answers to one question that somebody has written and that count, in no order that says whose they are. */
async function answersTo(db: Query, { questionId }: Asked, sittings: Counting[]): Promise<ToMark[]> {
	const ids = sittings.map(({ sittingId }) => sittingId);
	const given = await marksGiven(db, ids);
	const rows: { sitting_id: string; value: string }[] = await db('answer_standing')
		.whereIn('sitting_id', ids)
		.where({ question_id: questionId, blank: 0 })
		.select('sitting_id', 'value');
	return rows
		.map((row) => ({
			sittingId: row.sitting_id,
			value: (JSON.parse(row.value) as { value: AnswerValue }).value,
			marks: given.get(markKey(row.sitting_id, questionId)) ?? []
		}))
		.filter(({ value }) => !isBlank(value));
}

/**
 * How all marking by people stands in an administration. Where everyone gets the points of a question, or nobody, there is
 * nothing to mark.
 * @param narrow to the sittings of one site, say
 */
export async function handProgress(
	db: Query,
	administrationId: string,
	narrow: (query: ReturnType<Query['queryBuilder']>) => void = () => {}
): Promise<HandProgress[]> {
	const sittings = await countingSittings(db, (query) => {
		query.where('sitting.administration_id', administrationId);
		narrow(query);
	});
	const progress: HandProgress[] = [];
	for (const [paperId, own] of groupBy(sittings, (one) => one.paperId)) {
		const treatments = await treatmentsFor(db, administrationId, paperId);
		for (const question of await handQuestions(db, paperId)) {
			if ((treatments.get(question.id)?.counts ?? 'as_marked') !== 'as_marked') continue;
			const asked = { administrationId, paperId, questionId: question.id };
			const answers = await answersTo(db, asked, own);
			if (answers.length > 0) progress.push(await progressOf(db, asked, question, answers));
		}
	}
	return progress;
}

async function progressOf(db: Query, asked: Asked, question: Question, answers: ToMark[]): Promise<HandProgress> {
	const { plan, revision } = await planFor(db, asked);
	const open = { first: 0, second: 0, third: 0 };
	const waits = new Map<string, number>();
	let [settled, unnamed] = [0, 0];
	for (const { sittingId, marks } of answers) {
		const standing = handStanding(plan, asked.questionId, sittingId, marks);
		if (standing.state === 'settled') {
			settled++;
			continue;
		}
		open[standing.state]++;
		if (standing.next.length === 0) unnamed++;
		for (const marker of standing.next) waits.set(marker, (waits.get(marker) ?? 0) + 1);
	}
	const all = answers.flatMap(({ marks }) => marks);
	const done = groupBy(all, ({ marker }) => marker);
	const times = all.map(({ tookMs }) => tookMs).filter((ms) => ms > 0);
	const each = times.length === 0 ? null : times.reduce((sum, ms) => sum + ms, 0) / times.length;
	const left = open.first + open.second + open.third;
	return {
		...asked,
		paper: (await paperVersion(db, asked.paperId)).title,
		question,
		plan,
		revision,
		answers: answers.length,
		settled,
		open,
		byMarker: [...new Set([...plan.markers.map(({ id }) => id), ...waits.keys(), ...done.keys()])].map((id) => ({
			id,
			waits: waits.get(id) ?? 0,
			done: done.get(id)?.length ?? 0
		})),
		unnamed,
		agreement: agreementOf(
			answers.flatMap(({ marks }) => (marks.length >= 2 ? [[marks[0].points, marks[1].points] as const] : []))
		),
		minutesLeft: each === null ? null : Math.ceil((each * left) / 60_000)
	};
}

async function planFor(db: Query, asked: Asked): Promise<{ plan: HandPlan; revision: number }> {
	const row = await db('hand_plan')
		.where({ administration_id: asked.administrationId, paper_id: asked.paperId, question_id: asked.questionId })
		.first('body', 'revision');
	return row
		? { plan: { ...NO_PLAN, ...JSON.parse(row.body) }, revision: row.revision }
		: { plan: NO_PLAN, revision: 0 };
}

/**
 * Says who marks a question, by which criteria, and what of it twice. Marks that were given stay.
 * @param revision of the plan that was changed; another one since is not written over
 */
export async function savePlan(
	otium: Writing,
	by: NewEntry['by'],
	asked: Asked,
	plan: HandPlan,
	revision: number
): Promise<void> {
	const question = (await handQuestions(otium.db, asked.paperId)).find(({ id }) => id === asked.questionId);
	if (!question) fail('not_found');
	const fault = planFault(plan, question.points);
	if (fault) fail('not_taken', { message: fault });
	const markers = plan.markers.map(({ id }) => id);
	const known = await otium.db('staff').whereIn('id', markers).pluck('id');
	if (known.length < new Set(markers).size) fail('not_taken', { message: 'One of these markers is not known here.' });
	const at = otium.now();
	const where = { administration_id: asked.administrationId, paper_id: asked.paperId, question_id: asked.questionId };
	await transact(otium.db, async (trx) => {
		const before = await planFor(trx, asked);
		if (before.revision !== revision) fail('changed_since_read');
		const row = { ...where, body: JSON.stringify(plan), revision: revision + 1, changed_at: at, changed_by: by.id };
		await trx('hand_plan').insert(row).onConflict(['administration_id', 'paper_id', 'question_id']).merge();
		await appendToLogbook(trx, [{ at, by, kind: 'marking_planned', body: { ...asked, plan } }]);
	});
}

/** What a marker does next, and what of it they have done. */
export type MarkersWork = {
	question: Question;
	plan: HandPlan;
	/** Those that wait for this person, in an order drawn for them; the one that they decide between two comes with both. */
	queue: {
		key: string;
		label: string;
		value: AnswerValue;
		turn: 'first' | 'second' | 'third';
		others: number[];
		/** Of a question that goes with another: that one. */
		beside: Beside | null;
	}[];
	/** Their own marks, latest first. */
	done: { id: string; key: string; label: string; value: AnswerValue; points: number; at: number }[];
};

/** Answers go by a name that says nothing of the sitting, and is another for each question. */
function labelOf(sittingId: string, questionId: string): string {
	return drawnFrom(`blind ${sittingId} ${questionId}`).toString(36).slice(2, 7).toUpperCase().padEnd(5, '0');
}

/** What a marker's page calls an answer by, and only the house can open. */
function keyOf(db: Query, sittingId: string, questionId: string): string {
	return sealSecret(db, `marking ${questionId} ${sittingId}`);
}

function openKey(db: Query, questionId: string, key: string): string | null {
	const text = openSecret(db, key);
	const before = `marking ${questionId} `;
	return text?.startsWith(before) && text !== key ? text.slice(before.length) : null;
}

/** The work of one marker at one question. */
export async function workOfMarker(db: Query, marker: string, asked: Asked): Promise<MarkersWork> {
	const question = (await handQuestions(db, asked.paperId)).find(({ id }) => id === asked.questionId);
	if (!question) fail('not_found');
	const answers = await answersOf(db, asked);
	const { plan } = await planFor(db, asked);
	const named = (sittingId: string) => ({
		key: keyOf(db, sittingId, asked.questionId),
		label: labelOf(sittingId, asked.questionId)
	});
	const waiting = answers
		.flatMap(({ sittingId, value, marks }) => {
			const standing = handStanding(plan, asked.questionId, sittingId, marks);
			if (standing.state === 'settled' || !standing.next.includes(marker)) return [];
			const others = standing.state === 'third' ? marks.map(({ points }) => points) : [];
			return [{ value, turn: standing.state, others, sittingId }];
		})
		.sort((a, b) => drawnFrom(`${marker} ${a.sittingId}`) - drawnFrom(`${marker} ${b.sittingId}`));
	const { content } = await paperVersion(db, asked.paperId);
	const beside = await besideEach(
		db,
		content,
		question,
		waiting.map(({ sittingId }) => sittingId)
	);
	const queue = waiting.map(({ sittingId, ...one }) => ({
		...one,
		...named(sittingId),
		beside: beside.get(sittingId) ?? null
	}));
	const done = answers
		.flatMap(({ sittingId, value, marks }) =>
			marks
				.filter((mark) => mark.marker === marker)
				.map(({ id, points, at }) => ({ id, ...named(sittingId), value, points, at }))
		)
		.sort((a, b) => b.at - a.at);
	return { question, plan, queue, done };
}

/** @param sittingId of one alone */
async function answersOf(db: Query, asked: Asked, sittingId?: string): Promise<ToMark[]> {
	const sittings = await countingSittings(db, (query) => {
		query.where({ 'sitting.administration_id': asked.administrationId, 'sitting.paper_id': asked.paperId });
		if (sittingId !== undefined) query.where('sitting.id', sittingId);
	});
	return answersTo(db, asked, sittings);
}

async function answerOfKey(db: Query, asked: Asked, key: string): Promise<ToMark | null> {
	const sittingId = openKey(db, asked.questionId, key);
	return sittingId === null ? null : ((await answersOf(db, asked, sittingId))[0] ?? null);
}

/** The sitting of a key; null: there is none, or its answer is not this person's to read. */
export async function sittingOfKey(db: Query, asked: Asked, key: string, marker: string): Promise<string | null> {
	const { plan } = await planFor(db, asked);
	const one = await answerOfKey(db, asked, key);
	if (!one) return null;
	const standing = handStanding(plan, asked.questionId, one.sittingId, one.marks);
	const isTheirs = standing.next.some((next) => next === marker) || one.marks.some((mark) => mark.marker === marker);
	return isTheirs ? one.sittingId : null;
}

export type NewMark = {
	id: string;
	key: string;
	points: number;
	criteria: Record<string, number>;
	comment: string;
	tookMs: number;
};

/**
 * Gives a mark. Sent twice it counts once; where somebody else has marked the answer in between, nothing is written over.
 * @throws ProblemError when it is not this person's to mark, or not so many points
 */
export async function giveMark(otium: Writing, marker: NewEntry['by'], asked: Asked, mark: NewMark): Promise<void> {
	const at = otium.now();
	await transact(otium.db, async (trx) => {
		if (await trx('hand_mark').where({ id: mark.id }).first('id')) return;
		const question = (await handQuestions(trx, asked.paperId)).find(({ id }) => id === asked.questionId);
		if (!question) fail('not_found');
		const { plan } = await planFor(trx, asked);
		const one = await answerOfKey(trx, asked, mark.key);
		if (!one) fail('not_found');
		const standing = handStanding(plan, asked.questionId, one.sittingId, one.marks);
		if (standing.state === 'settled' || !standing.next.includes(marker.id))
			fail('not_taken', {
				message: 'This answer is not yours to mark now: it has been marked, or goes to somebody else.',
				instead: 'Go on with the next one.'
			});
		const points = pointsOf(mark, plan, question);
		await trx('hand_mark').insert({
			id: mark.id,
			administration_id: asked.administrationId,
			sitting_id: one.sittingId,
			question_id: asked.questionId,
			marker: marker.id,
			points,
			criteria: JSON.stringify(mark.criteria),
			comment: mark.comment,
			took_ms: Math.min(mark.tookMs, 3_600_000),
			at
		});
		await appendToLogbook(trx, [
			{
				at,
				by: marker,
				kind: 'marked',
				sittingId: one.sittingId,
				body: { questionId: asked.questionId, points, turn: standing.state }
			}
		]);
	});
}

function pointsOf(mark: NewMark, { rubric }: HandPlan, question: Question): number {
	const points =
		rubric.length === 0 ? mark.points : rubric.reduce((sum, { id }) => sum + (mark.criteria[id] ?? NaN), 0);
	const isWithin = rubric.every(({ id, points: most }) => mark.criteria[id] >= 0 && mark.criteria[id] <= most);
	if (Number.isNaN(points) || !isWithin || points < 0 || points > question.points)
		fail('not_taken', {
			message:
				rubric.length === 0
					? `This question is worth 0 to ${question.points} points.`
					: 'Give points for every criterion, and no more than it is worth.'
		});
	return points;
}

/**
 * Takes a mark back; it stays in the record. One's own without more; another's by a named act with a reason.
 * @param why null: it is one's own
 */
export async function takeMarkBack(otium: Writing, by: NewEntry['by'], id: string, why: string | null): Promise<void> {
	const at = otium.now();
	await transact(otium.db, async (trx) => {
		const row: { marker: string; sitting_id: string; question_id: string; taken_back_at: number | null } | undefined =
			await trx('hand_mark').where({ id }).first();
		if (!row) fail('not_found');
		if (row.taken_back_at !== null) return;
		if (why === null && row.marker !== by.id) fail('not_yours');
		await trx('hand_mark').where({ id }).update({ taken_back_at: at, taken_back_by: by.id, taken_back_why: why });
		await appendToLogbook(trx, [
			{
				at,
				by,
				kind: 'mark_taken_back',
				sittingId: row.sitting_id,
				body: { questionId: row.question_id, mark: id, why }
			}
		]);
	});
}

/** A mark as whoever oversees the marking sees it: by whom, and still without a word about whose answer it is. */
export type OverseenMark = { id: string; label: string; marker: string; points: number; at: number; comment: string };

/** All marks of a question that stand, latest first. */
export async function marksOf(db: Query, { administrationId, questionId }: Asked): Promise<OverseenMark[]> {
	const rows: { id: string; sitting_id: string; name: string; points: number; at: number; comment: string }[] =
		await db('hand_mark')
			.leftJoin('staff', 'staff.id', 'hand_mark.marker')
			.where({ administration_id: administrationId, question_id: questionId })
			.whereNull('taken_back_at')
			.orderBy('at', 'desc')
			.limit(500)
			.select('hand_mark.id', 'sitting_id', 'staff.name', 'points', 'at', 'comment');
	return rows.map(({ sitting_id, name, ...row }) => ({ ...row, marker: name, label: labelOf(sitting_id, questionId) }));
}
