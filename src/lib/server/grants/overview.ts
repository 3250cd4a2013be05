import { may, type StaffMember } from '$core/access';
import { effectInWords, expectedEnd, grantInWords } from '$core/grants';
import { fullName } from '$core/names';
import { isUnfinished, type SittingState } from '$core/sitting';
import { localDate } from '$core/time';
import type { Query } from '../db';
import { findSessions, placeOf } from '../session';
import { loadSittingsOf, type Loaded } from '../sitting';

/** One candidate in one session, with everything they were given. */
export type GrantLine = {
	sittingId: string;
	candidateId: string;
	name: string;
	number: string;
	session: { id: string; name: string; zone: string };
	state: SittingState;
	base: { opens: number; closes: number | null };
	own: { opens: number; closes: number | null } | null;
	/** When they work, if all goes as planned. */
	works: { from: number; to: number | null };
	words: string;
	/** The close takes some of the time that was granted. */
	misfit: boolean;
	finished: boolean;
	grants: { id: string; what: string; scope: string; reason: string; canWithdraw: boolean }[];
};

/** Everyone with a grant in the sessions of one local day that this person may see. */
export async function grantsOfDay(db: Query, staff: StaffMember, zone: string, now: number): Promise<GrantLine[]> {
	const day = localDate(now, zone);
	const sessions = (
		await findSessions(db, (query) => query.whereBetween('session.opens', [now - 36 * 3_600_000, now + 36 * 3_600_000]))
	)
		.filter((session) => may(staff, 'grant', placeOf(session)))
		.filter((session) => localDate(session.window.opens, session.site.zone) === day);
	const loaded = await loadSittingsOf(
		db,
		sessions.map((session) => session.id),
		now
	);
	return loaded
		.filter((one) => one.merge.reasons.length > 0)
		.map((one) => toLine(one, now))
		.sort((a, b) => a.base.opens - b.base.opens || a.name.localeCompare(b.name));
}

export function toLine(one: Loaded, now: number): GrantLine {
	const { sitting, session, candidate, reckoning, merge } = one;
	const zone = session.site.zone;
	const to = expectedEnd(reckoning, session.rules.timing.atClose, now);
	const isFinished = !isUnfinished(sitting.state);
	const uncut = expectedEnd(reckoning, 'finish', now);
	const reaches = (grant: Loaded['grants'][number]) =>
		grant.withdrawnAt === null &&
		(grant.scope.kind === 'standing' ||
			('id' in grant.scope && [session.id, one.paperId, session.administrationId].includes(grant.scope.id)));
	return {
		sittingId: sitting.id,
		candidateId: candidate.id,
		name: fullName(candidate),
		number: candidate.number,
		session: { id: session.id, name: session.name, zone },
		state: sitting.state,
		base: session.window,
		own: merge.ownWindow,
		works: { from: reckoning.origin ?? reckoning.window.opens, to: sitting.ended?.at ?? to },
		words: effectInWords(session.rules.timing, merge.grants, to, zone),
		misfit: !isFinished && to !== null && uncut !== null && uncut > to,
		finished: isFinished,
		grants: one.grants.filter(reaches).map((grant) => ({
			id: grant.id,
			what: grantInWords(grant, zone),
			scope: grant.scope.kind,
			reason: grant.reason,
			canWithdraw: grant.candidateId !== null
		}))
	};
}
