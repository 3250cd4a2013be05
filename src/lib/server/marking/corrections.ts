import { type Change, type ChangeCount, changesOf, correctionFault, countChanges } from '$core/correction';
import type { Correction } from '$core/marking';
import { fullName } from '$core/names';
import { type Question, questionsOf } from '$core/paper';
import { fail } from '$core/problem';
import { type Query, transact } from '../db';
import { digestOf } from '../digest';
import type { House } from '../house';
import { sharedBy } from '../identity';
import { appendToLogbook, type NewEntry } from '../logbook';
import { paperVersion } from '../paper';
import { countingSittings } from './results-of';
import { remark } from './remark';
import type { RunScore } from './marking-thread';
import { tellChanged, toBeTold } from './tell-changed';
import { keepRun } from './runs';

type Needs = Pick<House, 'db' | 'now' | 'threads' | 'dataDir'>;

export type Corrected = { administrationId: string; paperId: string; questionId: string };

/** A correction with what it does to whom. */
export type Foreseen = {
	of: number;
	count: ChangeCount;
	/** Those who change, by number. */
	changes: (Change & { number: string; name: string })[];
	/** How many of those have been shown their result already. */
	shown: number;
	/** How many are written to when it counts, because their result is out. */
	told: number;
	/** What the marking was that this was worked out from: it changes with every mark, correction and counted answer. */
	basis: string;
};

/** A correction as it lies there: asked for, in force, or declined. */
export type CorrectionRow = {
	id: string;
	questionId: string;
	correction: Correction;
	reason: string;
	proposedBy: { id: string; name: string };
	proposedAt: number;
	state: 'waits' | 'counts' | 'declined';
	decidedBy: string | null;
	decidedAt: number | null;
};

type Row = {
	id: string;
	question_id: string;
	body: string;
	reason: string;
	proposed_by: string;
	proposed_at: number;
	place: number | null;
	confirmed_at: number | null;
	declined_at: number | null;
	proposer: string | null;
	confirmer: string | null;
	decliner: string | null;
};

/** All of a paper, latest first. */
export async function correctionsOf(db: Query, administrationId: string, paperId?: string): Promise<CorrectionRow[]> {
	const rows: Row[] = await db('correction')
		.leftJoin('staff as proposer', 'proposer.id', 'correction.proposed_by')
		.leftJoin('staff as confirmer', 'confirmer.id', 'correction.confirmed_by')
		.leftJoin('staff as decliner', 'decliner.id', 'correction.declined_by')
		.where({ administration_id: administrationId, ...(paperId ? { paper_id: paperId } : {}) })
		.orderBy('proposed_at', 'desc')
		.select('correction.*', 'proposer.name as proposer', 'confirmer.name as confirmer', 'decliner.name as decliner');
	return rows.map((row) => ({
		id: row.id,
		questionId: row.question_id,
		correction: JSON.parse(row.body),
		reason: row.reason,
		proposedBy: { id: row.proposed_by, name: row.proposer ?? row.proposed_by },
		proposedAt: row.proposed_at,
		state: row.place !== null ? 'counts' : row.declined_at !== null ? 'declined' : 'waits',
		decidedBy: row.confirmer ?? row.decliner,
		decidedAt: row.confirmed_at ?? row.declined_at
	}));
}

/** What a correction would do, read before it is asked for and again before it is confirmed. */
export async function foresee(otium: Needs, of: Corrected, correction: Correction): Promise<Foreseen> {
	const question = await questionOf(otium.db, of);
	const fault = correctionFault(question, correction);
	if (fault) fail('not_taken', { message: fault });
	const { before, after } = await remark(otium, of, { questionId: of.questionId, correction });
	return foreseenFrom(otium, of, before, after);
}

async function questionOf(db: Query, { paperId, questionId }: Corrected): Promise<Question> {
	const row = await db('paper').where({ id: paperId }).first('id');
	const question = row && questionsOf((await paperVersion(db, paperId)).content).find(({ id }) => id === questionId);
	return question ?? fail('not_found');
}

async function foreseenFrom(
	{ db, now }: Needs,
	{ administrationId, paperId }: Corrected,
	before: RunScore[],
	after: RunScore[]
): Promise<Foreseen> {
	const sittings = await countingSittings(db, (query) =>
		query.where({ 'sitting.administration_id': administrationId, 'sitting.paper_id': paperId })
	);
	const byId = new Map(sittings.map((one) => [one.sittingId, one]));
	const changes = changesOf(
		before.flatMap((one, i) => {
			const sitting = byId.get(one.sittingId);
			return sitting ? [{ before: one, after: after[i], rules: sitting.rules.result }] : [];
		})
	);
	const shown = new Set(await db('release_read').distinct('sitting_id').pluck('sitting_id'));
	return {
		of: before.length,
		count: countChanges(changes),
		changes: changes.map((change) => {
			const sitting = byId.get(change.sittingId)!;
			return { ...change, number: sitting.number, name: fullName(sitting) };
		}),
		shown: changes.filter(({ sittingId }) => shown.has(sittingId)).length,
		told: (
			await toBeTold(
				db,
				{ administrationId, paperId },
				changes.map(({ sittingId }) => sittingId),
				now()
			)
		).people.length,
		basis: basisOf(before)
	};
}

/** What every result came to, in short: two markings with the same basis are the same. */
function basisOf(scores: RunScore[]): string {
	return digestOf(scores.map(({ sittingId, marks }) => [sittingId, marks]));
}

/** Asks for it. It counts once another person has confirmed it; until then nothing changes. */
export async function propose(
	otium: Needs,
	by: NewEntry['by'],
	id: string,
	of: Corrected,
	correction: Correction,
	reason: string
): Promise<void> {
	const fault = correctionFault(await questionOf(otium.db, of), correction);
	if (fault) fail('not_taken', { message: fault });
	const at = otium.now();
	await transact(otium.db, async (trx) => {
		if (await trx('correction').where({ id }).first('id')) return;
		const waiting = await trx('correction')
			.where({ administration_id: of.administrationId, paper_id: of.paperId, question_id: of.questionId })
			.whereNull('place')
			.whereNull('declined_at')
			.first('id');
		if (waiting)
			fail('not_taken', {
				message: 'A correction of this question waits for a second person.',
				instead: 'Have that one confirmed or declined first.'
			});
		await trx('correction').insert({
			id,
			administration_id: of.administrationId,
			paper_id: of.paperId,
			question_id: of.questionId,
			body: JSON.stringify(correction),
			reason,
			proposed_by: by.id,
			proposed_at: at
		});
		await appendToLogbook(trx, [{ at, by, kind: 'correction_proposed', body: { id, ...of, correction, reason } }]);
	});
}

/**
 * Puts it in force: by another person than the one who asked, who has read what it does. The marking before it is kept as
 * a run, and so is the one after it.
 * @param basis of the marking that they read; another one since is shown first
 */
export async function confirm(otium: Needs, by: NewEntry['by'], id: string, basis: string): Promise<Foreseen> {
	const row = await openCorrection(otium.db, id);
	if (row.proposed_by === by.id)
		fail('not_taken', {
			message: 'You proposed this correction, so another person confirms it.',
			instead: 'Ask a coordinator, an author or a closing officer.'
		});
	const of = { administrationId: row.administration_id, paperId: row.paper_id, questionId: row.question_id };
	const correction: Correction = JSON.parse(row.body);
	const { before, after } = await remark(otium, of, { questionId: of.questionId, correction });
	const foreseen = await foreseenFrom(otium, of, before, after);
	if (foreseen.basis !== basis) fail('changed_since_read');
	const shares = await sharedBy(otium.db, row.proposed_by, by.id);
	const at = otium.now();
	await transact(otium.db, async (trx) => {
		await openCorrection(trx, id);
		const last = await trx('correction')
			.where({ administration_id: of.administrationId })
			.max<{ place: number | null }[]>('place as place');
		const run = { administration_id: of.administrationId, paper_id: of.paperId, at, by: by.id };
		if (
			(await trx('marking_run').where({ paper_id: of.paperId, administration_id: of.administrationId }).first('id')) ===
			undefined
		)
			await keepRun(trx, { ...run, why: 'as it was sat', correction_id: null }, before);
		await trx('correction')
			.where({ id })
			.update({ place: (last[0].place ?? 0) + 1, confirmed_by: by.id, confirmed_at: at });
		await keepRun(trx, { ...run, why: 'after a correction', correction_id: id }, after);
		const changed = foreseen.changes.map(({ sittingId }) => sittingId);
		await tellChanged(trx, (await paperVersion(trx, of.paperId)).title, await toBeTold(trx, of, changed, at), at);
		await appendToLogbook(trx, [
			{
				at,
				by,
				kind: 'correction_confirmed',
				body: { id, ...of, correction, changed: foreseen.changes.length, ...(shares.length > 0 && { shares }) }
			}
		]);
	});
	return foreseen;
}

type OpenRow = Row & { administration_id: string; paper_id: string };

async function openCorrection(db: Query, id: string): Promise<OpenRow> {
	const row: OpenRow | undefined = await db('correction').where({ id }).first();
	if (!row) fail('not_found');
	if (row.place !== null || row.declined_at !== null)
		fail('not_taken', {
			message: 'Somebody has decided about this correction already.',
			instead: 'Look at the list again.'
		});
	return row;
}

/** Turns it down, or takes back what one asked for oneself. */
export async function decline(otium: Needs, by: NewEntry['by'], id: string): Promise<void> {
	const at = otium.now();
	await transact(otium.db, async (trx) => {
		const row = await openCorrection(trx, id);
		await trx('correction').where({ id }).update({ declined_by: by.id, declined_at: at });
		await appendToLogbook(trx, [
			{ at, by, kind: 'correction_declined', body: { id, questionId: row.question_id, paperId: row.paper_id } }
		]);
	});
}
