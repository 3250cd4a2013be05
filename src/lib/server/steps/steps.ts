import { groupBy } from '$core/group-by';
import { standingOfStep, stepsFault, type Step, type StepDone, type StepStanding } from '$core/steps';
import { countingScore, type Reached } from '$core/attempts';
import { shareOf } from '$core/marking';
import { fail } from '$core/problem';
import { completeRules } from '$core/session';
import type { Actor, Sitting } from '$core/sitting';
import { insertMany, transact, type Query } from '../db';
import type { Writing } from '../house';
import { appendToLogbook } from '../logbook';
import { scoresOf } from '../marking';

type Row = {
	id: string;
	title: string;
	paper_title: string | null;
	after_id: string | null;
	least_percent: number | null;
};

/** The parts of an administration, in their order. */
export async function stepsOf(db: Query, administrationId: string): Promise<Step[]> {
	const rows: Row[] = await db('step').where({ administration_id: administrationId }).orderBy('place');
	return rows.map(({ id, title, paper_title, after_id, least_percent }) => ({
		id,
		title,
		paperTitle: paper_title,
		afterId: after_id,
		leastPercent: least_percent
	}));
}

/**
 * Keeps the parts as they were entered. What was ticked of a part stays with it.
 * @param was as they were read: somebody else's change in between is not written over
 * @throws ProblemError
 */
export async function saveSteps(
	otium: Writing,
	by: Actor,
	administrationId: string,
	{ was, steps }: { was: Step[]; steps: Step[] }
): Promise<void> {
	const fault = stepsFault(steps);
	if (fault) fail('not_taken', { message: fault });
	await transact(otium.db, async (trx) => {
		const there = await stepsOf(trx, administrationId);
		if (JSON.stringify(there) !== JSON.stringify(was)) fail('changed_meanwhile');
		const kept = new Set(steps.map(({ id }) => id));
		const gone = there.filter(({ id }) => !kept.has(id)).map(({ id }) => id);
		const strange = await trx('step')
			.whereIn('id', [...kept])
			.whereNot({ administration_id: administrationId })
			.first('id');
		if (strange) fail('not_found');
		await trx('step_done').whereIn('step_id', gone).delete();
		await trx('step').where({ administration_id: administrationId }).whereIn('id', gone).delete();
		const rows = steps.map((step, place) => ({
			id: step.id,
			administration_id: administrationId,
			place,
			title: step.title.trim(),
			paper_title: step.paperTitle,
			after_id: step.afterId,
			least_percent: step.leastPercent
		}));
		await insertMany(trx, 'step', rows, (insert) => insert.onConflict('id').merge());
		const body = { steps: steps.map(({ title }) => title) };
		await appendToLogbook(trx, [{ at: otium.now(), by, kind: 'steps_changed', body }]);
	});
}

/** How each of these candidates stands with each part. */
export type StepsStanding = Map<string, Map<string, StepDone & { standing: StepStanding }>>;

/** Works out for candidates what they have done, and what is open. By candidate, then by part. */
export async function standingOf(
	db: Query,
	administrationId: string,
	steps: Step[],
	candidateIds: string[]
): Promise<StepsStanding> {
	const ticks: { step_id: string; candidate_id: string; waived_why: string | null }[] = await db('step_done')
		.whereIn(
			'step_id',
			steps.map(({ id }) => id)
		)
		.whereIn('candidate_id', candidateIds)
		.select('step_id', 'candidate_id', 'waived_why');
	const tick = new Map(ticks.map((row) => [`${row.step_id} ${row.candidate_id}`, row]));
	const reached = await reachedIn(db, administrationId, steps, candidateIds);
	return new Map(
		candidateIds.map((candidateId) => {
			const done = (stepId: string): StepDone => {
				const step = steps.find((one) => one.id === stepId)!;
				const row = tick.get(`${stepId} ${candidateId}`);
				if (step.paperTitle === null) return { isDone: row !== undefined, percent: null, isOpened: false };
				const score = reached.get(`${candidateId} ${step.paperTitle}`);
				const percent = score && score.outOf > 0 ? shareOf(score.points, score.outOf).mul(100).valueOf() : null;
				return { isDone: score !== undefined, percent: score === null ? null : percent, isOpened: row !== undefined };
			};
			return [
				candidateId,
				new Map(steps.map((step) => [step.id, { ...done(step.id), standing: standingOfStep(step, steps, done) }]))
			];
		})
	);
}

/** What counts of the papers that parts are, by candidate and title; null: somebody still has to mark it. */
async function reachedIn(
	db: Query,
	administrationId: string,
	steps: Step[],
	candidateIds: string[]
): Promise<Map<string, Reached | null>> {
	const titles = steps.flatMap(({ paperTitle }) => paperTitle ?? []);
	const rows: {
		id: string;
		candidate_id: string;
		paper_id: string;
		title: string;
		form: string;
		rules: string;
		fold: string;
	}[] = await db('sitting')
		.join('paper', 'paper.id', 'sitting.paper_id')
		.join('session', 'session.id', 'sitting.session_id')
		.join('form', 'form.sitting_id', 'sitting.id')
		.where({ 'sitting.administration_id': administrationId, counts: 1 })
		.whereIn('sitting.state', ['handed_in', 'time_up'])
		.whereIn('candidate_id', candidateIds)
		.whereIn('paper.title', titles)
		.orderBy('sitting.attempt')
		.select(
			'sitting.id',
			'candidate_id',
			'sitting.paper_id',
			'paper.title',
			'form.form',
			'session.rules',
			'sitting.fold'
		);
	const scores = await scoresOf(
		db,
		rows.map((row) => ({
			sittingId: row.id,
			administrationId,
			paperId: row.paper_id,
			form: row.form,
			marking: completeRules(JSON.parse(row.rules)).marking,
			leftMs: (JSON.parse(row.fold) as Sitting).ended?.leftMs ?? null
		}))
	);
	const counting = new Map<string, Reached | null>();
	for (const [key, sat] of groupBy(rows, (row) => `${row.candidate_id} ${row.title}`)) {
		const all = sat.map((row) => scores.get(row.id)!.score);
		const { counts } = completeRules(JSON.parse(sat.at(-1)!.rules)).attempts;
		counting.set(key, all.some((score) => score.toMark > 0) ? null : countingScore(counts, all));
	}
	return counting;
}

/** Ticks a part off the screen as done for candidates, or opens one for them with a reason; `on` false takes it back. */
export async function tickStep(
	otium: Writing,
	by: Actor,
	step: Step,
	asked: { candidateIds: string[]; on: boolean; why: string | null }
): Promise<void> {
	const { candidateIds, on, why } = asked;
	if (step.paperTitle !== null && on && !why?.trim()) fail('reason_missing');
	await transact(otium.db, async (trx) => {
		if (!on) await trx('step_done').where({ step_id: step.id }).whereIn('candidate_id', candidateIds).delete();
		else
			await insertMany(
				trx,
				'step_done',
				candidateIds.map((candidate_id) => ({
					step_id: step.id,
					candidate_id,
					at: otium.now(),
					by: by.id,
					waived_why: step.paperTitle === null ? null : why
				})),
				(insert) => insert.onConflict(['step_id', 'candidate_id']).ignore()
			);
		const body = { step: step.title, candidates: candidateIds.length, on, why: step.paperTitle === null ? null : why };
		await appendToLogbook(trx, [{ at: otium.now(), by, kind: 'step_ticked', body }]);
	});
}

/** Whether a paper is open for a candidate by the order of its administration; without one it is. */
export async function standingAtDoor(
	db: Query,
	{ administrationId, paperTitle, candidateId }: { administrationId: string; paperTitle: string; candidateId: string }
): Promise<StepStanding> {
	const steps = await stepsOf(db, administrationId);
	const step = steps.find((one) => one.paperTitle === paperTitle);
	if (!step || step.afterId === null) return { open: true };
	const standing = await standingOf(db, administrationId, steps, [candidateId]);
	return standing.get(candidateId)!.get(step.id)!.standing;
}
