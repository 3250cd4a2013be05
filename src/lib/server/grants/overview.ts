import { may, type StaffMember } from '$core/access';
import {
	grantInWords,
	misfitInShort,
	misfitInWords,
	scopeInWords,
	type GrantKind,
	type GrantSource
} from '$core/grants';
import { fullName } from '$core/names';
import { isUnfinished, type SittingState } from '$core/sitting';
import type { Query } from '../db';
import { giveWay } from '../event-loop';
import { aroundTime, findSessions, isOnDay, placeOf, type Session } from '../session';
import { loadSittingsOf, type Loaded } from '../sitting';
import type { SiteDays } from './days';
import { daysFor, misfitsOf } from './foresee';
import { effectWordsOf } from './give';

/** One candidate in one session, with everything they were given. */
export type GrantLine = {
	sittingId: string;
	candidateId: string;
	name: string;
	number: string;
	session: { id: string; name: string; kind: Session['kind']; zone: string };
	state: SittingState;
	base: { opens: number; closes: number | null };
	own: { opens: number; closes: number | null } | null;
	/** When they work, if all goes as planned. */
	works: { from: number; to: number | null };
	words: string;
	/** What else they have to be at. */
	commitments: { from: number; to: number; title: string }[];
	/** What does not fit, a sentence each. */
	misfits: string[];
	/** The first of it in a few words. */
	misfit: string | null;
	finished: boolean;
	/** Its session has ended. */
	ended: boolean;
	grants: {
		id: string;
		kind: GrantKind;
		what: string;
		/** `standing`, `for this session`. */
		scope: string;
		reason: string;
		askedBy: string;
		source: GrantSource;
		evidence: string | null;
		canWithdraw: boolean;
	}[];
};

/** Everyone with a grant in the sessions of one local day that this person may see, and what of it does not fit. */
export async function grantsOfDay(
	db: Query,
	staff: StaffMember,
	{ day, now }: { day: string; now: number }
): Promise<GrantLine[]> {
	const noon = Date.parse(`${day}T12:00:00Z`);
	const sessions = (await findSessions(db, (query) => aroundTime(query, noon)))
		.filter((session) => may(staff, 'grant', placeOf(session)))
		.filter((session) => isOnDay(session, day));
	const loaded = await loadSittingsOf(
		db,
		sessions.map((session) => session.id),
		now
	);
	const lines: GrantLine[] = [];
	const sites = new Map<string, SiteDays>();
	for (const [i, one] of loaded.filter(({ merge }) => merge.reasons.length > 0).entries()) {
		if (i % 50 === 49) await giveWay();
		const days = await daysFor(db, one, sites, now);
		const misfits = misfitsOf(one, days);
		lines.push({
			...toLine(one),
			commitments: days.commitments,
			misfits: misfits.map((misfit) => misfitInWords(misfit, one.session.site.zone)),
			misfit: misfits.length > 0 ? misfitInShort(misfits[0]) : null
		});
	}
	// What needs somebody comes first, what is done last.
	const order = (line: GrantLine) => (line.misfits.length > 0 ? 0 : line.finished ? 2 : 1);
	return lines.sort((a, b) => order(a) - order(b) || a.base.opens - b.base.opens || a.name.localeCompare(b.name));
}

export function toLine(one: Loaded): GrantLine {
	const { sitting, session, candidate, reckoning, merge } = one;
	const zone = session.site.zone;
	const reaches = (grant: Loaded['grants'][number]) =>
		grant.withdrawnAt === null &&
		(grant.scope.kind === 'standing' ||
			('id' in grant.scope && [session.id, one.paperId, session.administrationId].includes(grant.scope.id)));
	return {
		sittingId: sitting.id,
		candidateId: candidate.id,
		name: fullName(candidate),
		number: candidate.number,
		session: { id: session.id, name: session.name, kind: session.kind, zone },
		state: sitting.state,
		base: session.window,
		own: merge.ownWindow,
		works: { from: reckoning.origin ?? reckoning.window.opens, to: sitting.ended?.at ?? reckoning.latestFinish },
		words: effectWordsOf(one),
		commitments: [],
		misfits: [],
		misfit: null,
		finished: !isUnfinished(sitting.state),
		ended: session.endedAt !== null,
		grants: one.grants.filter(reaches).map((grant) => ({
			id: grant.id,
			kind: grant.body.kind,
			what: grantInWords(grant, zone),
			scope: scopeInWords(grant.scope),
			reason: grant.reason,
			askedBy: grant.askedBy ?? '',
			source: grant.source ?? 'hand',
			evidence: grant.evidence ?? null,
			canWithdraw: grant.candidateId !== null
		}))
	};
}
