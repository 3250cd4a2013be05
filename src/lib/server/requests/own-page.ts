import { toldToCandidate } from '$core/grants';
import { fullName } from '$core/names';
import { hasEnded, isUnfinished, STATE_NAMES } from '$core/sitting';
import { lastDayEnds } from '$core/time';
import type { Query } from '../db';
import { loadSittings, type Loaded } from '../sitting';
import { requestsAbout, type Request } from './requests';

/** What a candidate reads of one sitting of theirs. */
export type OwnSitting = {
	sessionId: string;
	paper: string;
	site: string;
	zone: string;
	opens: number;
	state: string;
	/** It can still be sat. */
	isToCome: boolean;
	told: string[];
};
export type OwnPage = {
	name: string;
	number: string;
	sittings: OwnSitting[];
	/** What they asked for themselves: what others asked, and why, is not theirs to read. */
	requests: Pick<Request, 'id' | 'what' | 'why' | 'state' | 'note' | 'at' | 'session'>[];
};

/** A candidate's own page; null: they are not listed any more. */
export async function ownPage(db: Query, candidateId: string, now: number): Promise<OwnPage | null> {
	const candidate = await db('candidate').where({ id: candidateId, left_at: null }).first('given', 'family', 'number');
	if (!candidate) return null;
	const ids: string[] = await db('sitting')
		.join('session', 'session.id', 'sitting.session_id')
		.where({ candidate_id: candidateId })
		.whereNot('session.kind', 'rehearsal')
		.whereNull('next_attempt_id')
		.pluck('sitting.id');
	const loaded = await loadSittings(db, ids, now);
	return {
		name: fullName(candidate),
		number: candidate.number,
		sittings: loaded
			.map((one) => toOwn(one, now))
			.sort((a, b) => Number(b.isToCome) - Number(a.isToCome) || a.opens - b.opens),
		requests: (await requestsAbout(db, candidateId))
			.filter((request) => request.as === 'candidate')
			.map(({ id, what, why, state, note, at, session }) => ({ id, what, why, state, note, at, session }))
	};
}

function toOwn(one: Loaded, now: number): OwnSitting {
	const { sitting, session, merge, reckoning } = one;
	const { zone } = session.site;
	const hasWindow = merge.ownWindow !== null && (merge.ownWindow.closes ?? Infinity) > now;
	const isOver = session.endedAt !== null || now > lastDayEnds(session.window, zone);
	const isToCome = !hasEnded(sitting.state) && (isUnfinished(sitting.state) || hasWindow) && (!isOver || hasWindow);
	return {
		sessionId: session.id,
		paper: session.paper.title,
		site: session.site.name,
		zone,
		opens: reckoning.window.opens,
		state: STATE_NAMES[sitting.state],
		isToCome,
		told: isToCome
			? toldToCandidate({ merge, reckoning, timing: session.rules.timing, room: session.room.name, zone })
			: []
	};
}
