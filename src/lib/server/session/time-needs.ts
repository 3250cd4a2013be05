import { mergeGrants } from '$core/grants';
import type { SessionFacts } from '$core/session';
import { allottedMinutes, NEW_TRACK, reckon } from '$core/time';
import type { Query } from '../db';
import { findGrants } from '../records';
import type { Place } from './facts';

/**
 * What one candidate's time comes to.
 *
 * - `ends`: their latest finish with all of it, whatever a close would cut; null: none can be told.
 */
export type Need = { id: string; name: string; minutes: number | null; isMore: boolean; ends: number | null };

/** What each candidate's time comes to, in the order of the roster. */
export async function timeNeeds(
	db: Query,
	{ administrationId, input, rules, window, room, roster }: Place,
	now: number
): Promise<Need[]> {
	const byCandidate = new Map<string, Awaited<ReturnType<typeof findGrants>>>();
	for (const grant of await findGrants(
		db,
		roster.people.map((person) => person.candidateId),
		[]
	)) {
		const list = byCandidate.get(grant.candidateId!) ?? [];
		list.push(grant);
		byCandidate.set(grant.candidateId!, list);
	}
	const uncut = { ...rules.timing, atClose: 'finish' as const };
	return roster.people.map(({ candidateId, name }) => {
		const scope = { candidateId, administrationId, paperId: input.paperId, sessionId: '', opens: window.opens };
		const { grants } = mergeGrants(byCandidate.get(candidateId) ?? [], scope, room.zone);
		const isMore = grants.factor > 1 || grants.extraMinutes > 0 || grants.unlimited;
		const ends = reckon(uncut, window, grants, NEW_TRACK, Math.min(now, window.opens)).latestFinish;
		return { id: candidateId, name, minutes: allottedMinutes(rules.timing, grants), isMore, ends };
	});
}

/** Who has more time, and who more than fits before the end. */
export function extraTimeOf(needs: Need[]): SessionFacts['extraTime'] {
	const more = needs.filter((need) => need.isMore);
	const ends = more.map((need) => need.ends).filter((end) => end !== null);
	return {
		count: more.length,
		lastEnds: ends.length > 0 ? Math.max(...ends) : null,
		needs: more.map((need) => ({ person: { id: need.id, name: need.name }, minutes: need.minutes }))
	};
}
