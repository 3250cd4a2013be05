import { ENTRY_REFUSALS, foldNumber, isTurningCode, readDoorCode, sameGiven, sameName, sameSecret } from '$core/access';
import { IN_THE_ROOM, refusal, type Refusal } from '$core/sitting';
import { timeAndDate } from '$core/time';
import { markOf, type Query } from '../db';
import type { House } from '../house';
import { findSessions, type Session } from '../session';
import { loadSittings } from '../sitting';

/** Who somebody says they are: a number and a family name, or names with the day and month of birth as `31-05`. */
export type Identity = { number: string; family: string; given?: string; birthday?: string };

/** The session whose code this is: the fixed one, or the one of these minutes where it turns. */
export async function sessionByCode(otium: Pick<House, 'db' | 'now'>, typed: string): Promise<Session | null> {
	const code = readDoorCode(typed);
	const [fixed] = await findSessions(otium.db, (query) =>
		query.where('session.door_code_mark', markOf(otium.db, code)).whereNull('turning_key')
	);
	if (fixed?.doorCode && sameSecret(fixed.doorCode, code)) return fixed;
	const turning = await findSessions(otium.db, (query) => query.whereNotNull('turning_key').whereNotNull('door_code'));
	return (
		turning.find((one) => isTurningCode(one.turningKey!, typed, otium.now(), one.rules.door.turnsEveryMinutes)) ?? null
	);
}

/** The sitting that a slip was printed for. */
export async function sittingBySlip(
	db: Query,
	code: string
): Promise<{ sitting_id: string; session_id: string } | undefined> {
	return db('slip')
		.join('sitting', 'sitting.id', 'slip.sitting_id')
		.where({ code_mark: markOf(db, code) })
		.first('slip.sitting_id', 'sitting.session_id');
}

type RosterRow = {
	sitting_id: string;
	candidate_id: string;
	seat: string | null;
	given: string;
	family: string;
	number: string;
	birth: string | null;
	photo_at: number | null;
	elsewhere: number;
};

/** Whom the typed identity means, by the fields that the rules ask for. Two who fit are nobody. */
export async function recognise(db: Query, session: Session, typed: Identity): Promise<RosterRow | undefined> {
	if (session.rules.door.identity !== 'names_and_birthday') {
		const found = await onRoster(db, session.id, { 'candidate.number_folded': foldNumber(typed.number) });
		return found && sameName(found.family, typed.family) ? found : undefined;
	}
	const people = await roster(db, session.id, {});
	const fitting = people.filter(
		(one) =>
			one.birth !== null &&
			one.birth.slice(5) === typed.birthday!.split('-').reverse().join('-') &&
			// Whoever writes their names the other way round is the same person.
			((sameGiven(one.given, typed.given ?? '') && sameName(one.family, typed.family)) ||
				(sameName(one.given, typed.family) && sameName(one.family, typed.given ?? '')))
	);
	return fitting.length === 1 ? fitting[0] : undefined;
}

/** The one of a session whom the columns given mean. */
export async function onRoster(
	db: Query,
	sessionId: string,
	who: Record<string, string>
): Promise<RosterRow | undefined> {
	const [found] = await roster(db, sessionId, who);
	return found;
}

function roster(db: Query, sessionId: string, who: Record<string, string>): Promise<RosterRow[]> {
	return db('roster')
		.join('sitting', 'sitting.id', 'roster.sitting_id')
		.join('candidate', 'candidate.id', 'sitting.candidate_id')
		.where({ 'roster.session_id': sessionId, 'sitting.session_id': sessionId, ...who })
		.select(
			'roster.sitting_id',
			'sitting.candidate_id',
			'roster.seat',
			'candidate.given',
			'candidate.family',
			'candidate.number',
			'candidate.birth',
			'candidate.photo_at',
			'candidate.elsewhere'
		);
}

/**
 * Somebody who has a window of their own now in this session's room, and sits for another session. Number and family name
 * tell them, and the code is that of the room they were sent to.
 */
export async function ownWindowHere(
	db: Query,
	here: Session,
	typed: Identity,
	now: number
): Promise<{ session: Session; found: RosterRow } | null> {
	const ids: string[] = await db('sitting')
		.join('candidate', 'candidate.id', 'sitting.candidate_id')
		.where({ number_folded: foldNumber(typed.number), left_at: null })
		.whereNot({ session_id: here.id })
		.whereIn('state', ['expected', ...IN_THE_ROOM])
		.pluck('sitting.id');
	for (const { sitting, session, candidate, merge, reckoning } of await loadSittings(db, ids, now)) {
		const isNow = now >= reckoning.doorOpens && reckoning.phase !== 'over';
		if (merge.room?.id !== here.room.id || !isNow || !sameName(candidate.family, typed.family)) continue;
		const found = await onRoster(db, session.id, { 'sitting.id': sitting.id });
		if (found) return { session, found };
	}
	return null;
}

/**
 * Somebody who is known by number and family name and is not on this list: told where they are expected, or that the
 * proctor has been told. Both details were right, so nothing is given away.
 */
export async function elsewhere(
	db: Query,
	session: Session,
	typed: Identity
): Promise<{ code: string; candidateId: string; refusal: Refusal } | null> {
	const person = (await db('candidate')
		.where({ number_folded: foldNumber(typed.number), left_at: null })
		.first('id', 'family')) as { id: string; family: string } | undefined;
	if (!person || !sameName(person.family, typed.family)) return null;
	const of = (states: readonly string[]) =>
		findSessions(db, (query) =>
			query
				.whereNull('session.ended_at')
				.whereIn(
					'session.id',
					db('sitting').where({ candidate_id: person.id }).whereIn('state', states).select('session_id')
				)
				.orderBy('session.opens')
		);
	// Where they sit already comes before where they are expected next.
	const [inside] = await of(IN_THE_ROOM);
	const [expected] = inside ? [inside] : await of(['expected', 'carried_over']);
	if (!expected)
		return {
			code: 'not_on_list',
			candidateId: person.id,
			refusal: refusal('not_on_list')
		};
	const when = timeAndDate(expected.window.opens, expected.site.zone, session.window.opens);
	return {
		code: 'wrong_session',
		candidateId: person.id,
		refusal: {
			code: 'wrong_session',
			message: `You ${inside ? 'sit elsewhere at the moment' : 'are expected elsewhere'}: ${expected.paper.title} in the ${expected.room.name.replace(/^the /i, '')}, ${when}.`,
			instead: ENTRY_REFUSALS.wrong_session.instead
		}
	};
}
