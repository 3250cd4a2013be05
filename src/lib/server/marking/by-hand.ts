import { type Agreement, agreementOf, type HandPlan, handStanding, NO_PLAN, planFault } from '$core/by-hand';
import { groupBy } from '$core/group-by';
import { type AnswerValue, isBlank, isMarkedByHand, type Question, questionsOf } from '$core/paper';
import { fail } from '$core/problem';
import { type Query, transact } from '../db';
import type { Writing } from '../house';
import { appendToLogbook, type NewEntry } from '../logbook';
import { paperVersion } from '../paper';
import { type GivenMark, markKey, marksGiven } from './hand-points';
import { type Counting, countingSittings } from './results-of';
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
export async function handQuestions(db: Query, paperId: string): Promise<Question4Hand[]> {
	return questionsOf((await paperVersion(db, paperId)).content).filter((question) => isMarkedByHand(question));
}

/** The answers to one question that somebody has written and that count, in no order that says whose they are. */
export async function answersTo(db: Query, { questionId }: Asked, sittings: Counting[]): Promise<ToMark[]> {
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

/** How this question is marked, with the revision that saving it asks for. */
export async function planFor(db: Query, asked: Asked): Promise<{ plan: HandPlan; revision: number }> {
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
