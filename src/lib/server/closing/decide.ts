import { nanoid } from 'nanoid';
import { groupBy } from '$core/group-by';
import { INCIDENT_KINDS, type IncidentKind } from '$core/incident';
import { fullName } from '$core/names';
import { fail } from '$core/problem';
import type { Actor, Refusal } from '$core/sitting';
import { INCIDENT_DECISIONS, type IncidentDecision } from '$core/validity';
import { insertMany, transact, type Query } from '../db';
import type { Acting } from '../house';
import { appendToLogbook } from '../logbook';
import { actIn, tell, type Touched } from '../sitting';

/** An incident of an administration, with what was decided about each person whom it names. */
export type ToDecide = {
	id: string;
	kind: IncidentKind;
	what: string;
	note: string;
	done: string;
	minutes: number;
	happenedAt: number;
	sessionId: string;
	session: string;
	siteId: string;
	zone: string;
	hasAttachment: boolean;
	people: { sittingId: string | null; name: string; number: string; state: string; decision: Decided | null }[];
	isDecided: boolean;
};
export type Decided = { decision: IncidentDecision; note: string; by: string; at: number };

type Row = {
	id: string;
	kind: IncidentKind;
	note: string;
	done: string;
	minutes: number;
	happened_at: number;
	session_id: string;
	session: string;
	site_id: string;
	zone: string;
	attachment_name: string | null;
};
type DecisionRow = {
	incident_id: string;
	sitting_id: string | null;
	decision: IncidentDecision;
	note: string;
	by: string;
	at: number;
};

/** All incidents of an administration that were not taken back, those without a decision first. */
export async function incidentsToDecide(db: Query, administrationId: string): Promise<ToDecide[]> {
	const rows: Row[] = await db('incident')
		.join('session', 'session.id', 'incident.session_id')
		.join('room', 'room.id', 'session.room_id')
		.join('site', 'site.id', 'room.site_id')
		.where({ 'session.administration_id': administrationId, 'incident.withdrawn_at': null })
		.whereNot('session.kind', 'rehearsal')
		.orderBy('happened_at')
		.select('incident.*', 'session.name as session', 'site.id as site_id', 'site.zone');
	const ids = rows.map(({ id }) => id);
	const people: {
		incident_id: string;
		sitting_id: string;
		given: string;
		family: string;
		number: string;
		state: string;
	}[] = await db('incident_person')
		.join('sitting', 'sitting.id', 'incident_person.sitting_id')
		.join('candidate', 'candidate.id', 'sitting.candidate_id')
		.whereIn('incident_id', ids)
		.orderBy(['family', 'given'])
		.select('incident_id', 'sitting_id', 'given', 'family', 'number', 'sitting.state');
	const decisions: DecisionRow[] = await db('incident_decision')
		.leftJoin('staff', 'staff.id', 'incident_decision.by')
		.whereIn('incident_id', ids)
		.whereNull('withdrawn_at')
		.select('incident_id', 'sitting_id', 'decision', 'note', 'staff.name as by', 'at');
	const named = groupBy(people, (one) => one.incident_id);
	const decided = new Map(decisions.map((row) => [`${row.incident_id} ${row.sitting_id ?? ''}`, row]));
	const all = rows.map((row): ToDecide => {
		const decisionOf = (sittingId: string | null): Decided | null => {
			const found = decided.get(`${row.id} ${sittingId ?? ''}`);
			return found ? { decision: found.decision, note: found.note, by: found.by, at: found.at } : null;
		};
		const own = named.get(row.id) ?? [];
		const people =
			own.length === 0
				? [{ sittingId: null, name: 'Nobody by name', number: '', state: '', decision: decisionOf(null) }]
				: own.map((one) => ({
						sittingId: one.sitting_id,
						name: fullName(one),
						number: one.number,
						state: one.state,
						decision: decisionOf(one.sitting_id)
					}));
		return {
			id: row.id,
			kind: row.kind,
			what: INCIDENT_KINDS[row.kind],
			note: row.note,
			done: row.done,
			minutes: row.minutes,
			happenedAt: row.happened_at,
			sessionId: row.session_id,
			session: row.session,
			siteId: row.site_id,
			zone: row.zone,
			hasAttachment: row.attachment_name !== null,
			people,
			isDecided: people.every(({ decision }) => decision !== null)
		};
	});
	return all.sort((a, b) => Number(a.isDecided) - Number(b.isDecided) || a.happenedAt - b.happenedAt);
}

/**
 * Decides about an incident, for the people named or (none named) as a whole. Deciding again replaces what was decided,
 * which stays in the record. Whoever is to sit again, or is set aside, is so at once, and then owed a sitting or not.
 */
export async function decideIncident(
	otium: Acting,
	by: Actor,
	incidentId: string,
	sittingIds: (string | null)[],
	decision: IncidentDecision,
	note: string
): Promise<void> {
	const incident = await otium.db('incident').where({ id: incidentId, withdrawn_at: null }).first('session_id');
	if (!incident) fail('not_found');
	const named: string[] = await otium.db('incident_person').where({ incident_id: incidentId }).pluck('sitting_id');
	const asked = sittingIds.filter((id) => id !== null);
	if (named.length === 0 ? asked.length > 0 : asked.length === 0 || asked.some((id) => !named.includes(id)))
		fail('not_taken', { message: 'This incident does not name these people.' });
	const at = otium.now();
	const touched: Touched = new Map();
	await transact(otium.db, async (trx) => {
		const earlier = trx('incident_decision').where({ incident_id: incidentId }).whereNull('withdrawn_at');
		const replaced = named.length === 0 ? earlier.whereNull('sitting_id') : earlier.whereIn('sitting_id', asked);
		const before: { sitting_id: string | null; decision: IncidentDecision }[] = await replaced
			.clone()
			.select('sitting_id', 'decision');
		await replaced.update({ withdrawn_at: at });
		const rows = (named.length === 0 ? [null] : asked).map((sitting_id) => ({
			id: nanoid(),
			incident_id: incidentId,
			sitting_id,
			decision,
			note,
			by: by.id,
			at
		}));
		await insertMany(trx, 'incident_decision', rows);
		await appendToLogbook(
			trx,
			rows.map(({ sitting_id }) => ({
				at,
				by,
				kind: 'incident_decided',
				sessionId: incident.session_id,
				sittingId: sitting_id,
				body: { incident: incidentId, decision, note }
			}))
		);
		const decidedBefore = new Map(before.map((row) => [row.sitting_id, row.decision]));
		const reason = note || INCIDENT_DECISIONS[decision];
		const requests = asked.flatMap((sittingId) =>
			actsOf(decidedBefore.get(sittingId) ?? null, decision).map((kind) => ({
				id: `${incidentId}:${sittingId}:${kind}:${at}`,
				sittingId,
				by,
				body: kind === 'restore' ? { kind } : { kind, reason }
			}))
		);
		const outcomes = await actIn(trx, at, requests, touched);
		// What can't be done is not decided: nothing of it stays.
		const refused = outcomes.find((outcome) => !outcome.ok);
		if (refused && !refused.ok) await sayWhoCannot(trx, refused.sittingId, refused.refusal);
	});
	tell(otium, touched);
	otium.hub.changed(incident.session_id, asked);
}

/** Sets a sitting aside, so that it counts nothing. */
const SETS_ASIDE: readonly (IncidentDecision | null)[] = ['set_aside', 'sit_again'];

/** What follows from a decision that takes the place of another: what that one did and this one does not is undone. */
function actsOf(
	before: IncidentDecision | null,
	decision: IncidentDecision
): ('set_aside' | 'restore' | 'allow_fresh')[] {
	const wasAside = SETS_ASIDE.includes(before);
	const acts: ReturnType<typeof actsOf> = [];
	// A sitting that may be sat again is set aside for good only from where it stood before.
	const isUndone = wasAside && (!SETS_ASIDE.includes(decision) || (before === 'sit_again' && decision === 'set_aside'));
	if (isUndone) acts.push('restore');
	if (SETS_ASIDE.includes(decision) && (!wasAside || isUndone)) acts.push('set_aside');
	if (decision === 'sit_again' && before !== 'sit_again') acts.push('allow_fresh');
	return acts;
}

/** @throws ProblemError that names whom it could not be done for, and why */
async function sayWhoCannot(db: Query, sittingId: string, { message, instead }: Refusal): Promise<never> {
	const person = await db('sitting')
		.join('candidate', 'candidate.id', 'sitting.candidate_id')
		.where('sitting.id', sittingId)
		.first('given', 'family');
	fail('not_taken', { message: `${person ? fullName(person) : 'One of them'}: ${message}`, instead });
}
