import { mergeGrants } from '$core/grants';
import type { SessionFacts } from '$core/session';
import { allottedMinutes, NEW_TRACK, NO_GRANTS, reckon } from '$core/time';
import { whereBegun, type Query } from '../db';
import { findGrants } from '../records';
import { loadSittings, minutesToWork } from '../sitting';
import type { Place } from './facts';

/**
 * What one candidate's time comes to.
 *
 * - `minutes`: what is left of it where they go on with work that they have begun.
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
	const begunAt = Math.min(now, window.opens);
	const left = await leftToThose(
		db,
		administrationId,
		input.paperId,
		roster.people.map(({ candidateId }) => candidateId),
		now
	);
	return roster.people.map(({ candidateId, name }) => {
		const goesOnWith = left.get(candidateId);
		if (goesOnWith !== undefined) {
			const rest = { ...uncut, limitMinutes: goesOnWith };
			const ends = reckon(rest, window, NO_GRANTS, NEW_TRACK, begunAt).latestFinish;
			return { id: candidateId, name, minutes: goesOnWith, isMore: false, ends };
		}
		const scope = { candidateId, administrationId, paperId: input.paperId, sessionId: '', opens: window.opens };
		const { grants } = mergeGrants(byCandidate.get(candidateId) ?? [], scope, room.zone);
		const isMore = grants.factor > 1 || grants.extraMinutes > 0 || grants.unlimited;
		const ends = reckon(uncut, window, grants, NEW_TRACK, begunAt).latestFinish;
		return { id: candidateId, name, minutes: allottedMinutes(rules.timing, grants), isMore, ends };
	});
}

/** Who goes on with this paper where they stopped: the minutes left to them, by candidate; null: as long as they like. */
async function leftToThose(
	db: Query,
	administrationId: string,
	paperId: string,
	candidateIds: string[],
	now: number
): Promise<Map<string, number | null>> {
	const ids: string[] = await db('sitting')
		.join('session', 'session.id', 'sitting.session_id')
		.where({ 'session.administration_id': administrationId, 'session.paper_id': paperId })
		.whereIn('sitting.state', ['carried_over', 'expected'])
		.whereNull('next_attempt_id')
		.modify(whereBegun)
		.whereIn('candidate_id', candidateIds)
		.pluck('sitting.id');
	const begun = ids.length === 0 ? [] : await loadSittings(db, ids, now);
	return new Map(begun.map((one) => [one.candidate.id, minutesToWork(one)]));
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
