import { nanoid } from 'nanoid';
import { groupBy } from '$core/group-by';
import { fullName } from '$core/names';
import { fail } from '$core/problem';
import { proposeValidity, type IncidentDecision, type ProposedValidity, type Validity } from '$core/validity';
import type { IncidentKind } from '$core/incident';
import type { PaceLevel } from '$core/pace';
import { MINUTE, ranOn, unionLength } from '$core/time';
import { insertMany, lateAnswers, transact, type Query } from '../db';
import { mapInParts } from '../event-loop';
import type { Writing } from '../house';
import { lapseCounts } from '../lockdown';
import { appendToLogbook, type NewEntry } from '../logbook';
import { countingSittings, type Counting } from '../marking';

/** A result, what is proposed about it and what was decided. */
export type ValidityLine = {
	sittingId: string;
	name: string;
	number: string;
	sessionId: string;
	session: string;
	siteId: string;
	proposed: ProposedValidity;
	decided: { verdict: Validity; note: string; by: string; at: number } | null;
};

/** So many are read before everything else has its turn. */
const READ_AT_ONCE = 250;

type Decided = { sitting_id: string; verdict: Validity; note: string; by: string; at: number };

/** Results of an administration with what is proposed about each. */
export async function validityLines(db: Query, administrationId: string): Promise<ValidityLine[]> {
	return validityOf(
		db,
		await countingSittings(db, (query) => query.where('sitting.administration_id', administrationId))
	);
}

/** What is proposed about each of these, and decided. Without doubt and a decision, a result is valid. */
export function validityOf(db: Query, sittings: Counting[]): Promise<ValidityLine[]> {
	return mapInParts(sittings, READ_AT_ONCE, (part) => linesOf(db, part));
}

async function linesOf(db: Query, sittings: Counting[]): Promise<ValidityLine[]> {
	const ids = sittings.map(({ sittingId }) => sittingId);
	const [proposals, decided] = [await proposalsFor(db, sittings), await decisionsOf(db, ids)];
	return sittings.map((one) => {
		const found = decided.get(one.sittingId);
		return {
			sittingId: one.sittingId,
			name: fullName(one),
			number: one.number,
			sessionId: one.sessionId,
			session: one.session,
			siteId: one.siteId,
			proposed: proposals.get(one.sittingId)!,
			decided: found ? { verdict: found.verdict, note: found.note, by: found.by, at: found.at } : null
		};
	});
}

/** By sitting: what was decided, the decision that stands. */
export async function decisionsOf(db: Query, sittingIds: string[]): Promise<Map<string, Decided>> {
	const rows: Decided[] = await db('validity')
		.leftJoin('staff', 'staff.id', 'validity.by')
		.whereIn('sitting_id', sittingIds)
		.whereNull('withdrawn_at')
		.select('sitting_id', 'verdict', 'note', 'staff.name as by', 'at');
	return new Map(rows.map((row) => [row.sitting_id, row]));
}

/** By sitting: what is proposed, from all that is known of it. */
export async function proposalsFor(db: Query, sittings: Counting[]): Promise<Map<string, ProposedValidity>> {
	const ids = sittings.map(({ sittingId }) => sittingId);
	const progress: { sitting_id: string; pace: PaceLevel; rapid: number }[] = await db('progress').whereIn(
		'sitting_id',
		ids
	);
	const paces = new Map(progress.map((row) => [row.sitting_id, row]));
	const lapses = await lapseCounts(db, ids);
	const late = await lateAnswers(db, ids);
	const reopened = await timesReopened(db, ids);
	const credits = await creditsGiven(db, sittings);
	const incidents = await incidentsOfEach(db, ids);
	return new Map(
		sittings.map(({ sittingId, rules, fold, candidateId, sessionId }) => {
			const pace = paces.get(sittingId);
			const last = fold.ended?.at ?? Infinity;
			const lostMs = unionLength(
				fold.stops.filter(({ why }) => why === 'lost'),
				0,
				last
			);
			// Where a sitting went on elsewhere, the rules that it was sat under then have settled what counts.
			const ranOnMs = ranOn(fold.stops, 'lost', rules.timing.clockStops, 0, last);
			return [
				sittingId,
				proposeValidity({
					pace: pace?.pace ?? 'calm',
					rapid: pace?.rapid ?? 0,
					questions: fold.ended?.work?.answers ?? 0,
					leavings: lapses.get(sittingId)?.left ?? 0,
					leavingsAllowed: rules.lockdown.level === 'open' ? null : rules.lockdown.leavingsAllowed,
					lateAnswers: late.get(sittingId) ?? 0,
					lostMs,
					givenBackMs:
						lostMs - ranOnMs + (credits.get(`${sessionId} ${candidateId}`) ?? 0) + (credits.get(`${sessionId} `) ?? 0),
					allottedMs: rules.timing.limitMinutes === null ? null : rules.timing.limitMinutes * MINUTE,
					reopened: reopened.get(sittingId) ?? 0,
					devices: fold.epoch,
					notes: fold.noted.map(({ what }) => what),
					incidents: incidents.get(sittingId) ?? []
				})
			] as const;
		})
	);
}

async function timesReopened(db: Query, ids: string[]): Promise<Map<string, number>> {
	const rows = (await db('logbook')
		.whereIn('sitting_id', ids)
		.whereIn('kind', ['reopened', 'continued_later'])
		.groupBy('sitting_id')
		.select('sitting_id as id')
		.count('* as times')) as unknown as { id: string; times: number }[];
	return new Map(rows.map(({ id, times }) => [id, times]));
}

/** Working time given back, ms, by session and candidate; by session alone what was given to all. */
async function creditsGiven(db: Query, sittings: Counting[]): Promise<Map<string, number>> {
	const rows: { candidate_id: string | null; scope_id: string; body: string }[] = await db('grant_given')
		.where({ kind: 'credit', scope_kind: 'session', withdrawn_at: null })
		.whereIn('scope_id', [...new Set(sittings.map(({ sessionId }) => sessionId))])
		.select('candidate_id', 'scope_id', 'body');
	const credits = new Map<string, number>();
	for (const { candidate_id, scope_id, body } of rows) {
		const key = `${scope_id} ${candidate_id ?? ''}`;
		credits.set(key, (credits.get(key) ?? 0) + (JSON.parse(body) as { minutes: number }).minutes * MINUTE);
	}
	return credits;
}

async function incidentsOfEach(
	db: Query,
	ids: string[]
): Promise<Map<string, { kind: IncidentKind; decision: IncidentDecision | null }[]>> {
	const rows: { sitting_id: string; kind: IncidentKind; decision: IncidentDecision | null }[] = await db(
		'incident_person'
	)
		.join('incident', 'incident.id', 'incident_person.incident_id')
		.leftJoin('incident_decision', (join) =>
			join
				.on('incident_decision.incident_id', 'incident.id')
				.andOn('incident_decision.sitting_id', 'incident_person.sitting_id')
				.andOnNull('incident_decision.withdrawn_at')
		)
		.whereIn('incident_person.sitting_id', ids)
		.whereNull('incident.withdrawn_at')
		.select('incident_person.sitting_id', 'incident.kind', 'incident_decision.decision');
	return groupBy(rows, (row) => row.sitting_id);
}

/** Decides what results are worth. Deciding again replaces what was decided, which stays in the record. */
export async function decideValidity(
	otium: Writing,
	by: NewEntry['by'],
	sittingIds: string[],
	verdict: Validity,
	note: string
): Promise<number> {
	const sittings = await countingSittings(otium.db, (query) => query.whereIn('sitting.id', sittingIds));
	if (sittings.length < new Set(sittingIds).size)
		fail('not_taken', {
			message: 'One of these has no result any more: it was reopened or set aside.',
			instead: 'Look at the list again.'
		});
	const proposals = await proposalsFor(otium.db, sittings);
	const at = otium.now();
	await transact(otium.db, async (trx) => {
		await trx('validity').whereIn('sitting_id', sittingIds).whereNull('withdrawn_at').update({ withdrawn_at: at });
		await insertMany(
			trx,
			'validity',
			sittings.map(({ sittingId }) => ({
				id: nanoid(),
				sitting_id: sittingId,
				verdict,
				proposed: JSON.stringify(proposals.get(sittingId)),
				note,
				by: by.id,
				at
			}))
		);
		await appendToLogbook(
			trx,
			sittings.map(({ sittingId, sessionId }) => ({
				at,
				by,
				kind: 'validity_decided',
				sessionId,
				sittingId,
				body: { verdict, note, proposed: proposals.get(sittingId)!.verdict }
			}))
		);
	});
	return sittings.length;
}
