import { fullName } from '$core/names';
import { hasEnded, isUnfinished, STATE_NAMES } from '$core/sitting';
import { addDays, lastDayEnds, localDate } from '$core/time';
import type { ToldSubject } from '$core/told';
import type { Query } from '../db';
import { slipsFor } from '../session';
import { dayToldTo, loadSittings, toldOf, type Loaded } from '../sitting';
import { standingAtDoor } from '../steps';
import { requestsAbout, type Request } from './listed-requests';

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
	/** Everything that binds them there, by subject. */
	binds: ToldSubject[];
	/** It can be sat at this moment. */
	isNow: boolean;
	/** What has to be done first; null: it is open. */
	closed: string | null;
	/** Where to go, with their own code where they have one. */
	link: string;
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
	const loaded = (await loadSittings(db, ids, now)).filter((one) => isShown(one, now));
	const slips = await slipsFor(
		db,
		loaded.filter(({ session }) => session.rules.door.slips).map(({ sitting }) => sitting.id)
	);
	const sittings = [];
	for (const one of loaded) sittings.push(await toOwn(db, one, slips.get(one.sitting.id), now));
	return {
		name: fullName(candidate),
		number: candidate.number,
		sittings: sittings.sort((a, b) => Number(b.isToCome) - Number(a.isToCome) || a.opens - b.opens),
		requests: (await requestsAbout(db, candidateId))
			.filter((request) => request.as === 'candidate')
			.map(({ id, what, why, state, note, at, session }) => ({ id, what, why, state, note, at, session }))
	};
}

/** What is planned is seen from the day that the rules say, and at once by whoever has come there. */
function isShown({ session, sitting, reckoning }: Loaded, now: number): boolean {
	const days = session.rules.door.shownDaysBefore;
	if (days === null || sitting.state !== 'expected') return true;
	const { zone } = session.site;
	return localDate(now, zone) >= addDays(localDate(reckoning.window.opens, zone), -days);
}

async function toOwn(db: Query, one: Loaded, slip: string | undefined, now: number): Promise<OwnSitting> {
	const { sitting, session, merge, reckoning } = one;
	const { zone } = session.site;
	const hasWindow = merge.ownWindow !== null && (merge.ownWindow.closes ?? Infinity) > now;
	const isOver = session.endedAt !== null || now > lastDayEnds(session.window, zone);
	const isToCome = !hasEnded(sitting.state) && (isUnfinished(sitting.state) || hasWindow) && (!isOver || hasWindow);
	const place = {
		administrationId: session.administrationId,
		paperTitle: session.paper.title,
		candidateId: one.candidate.id
	};
	const standing = isToCome && sitting.beganAt === null ? await standingAtDoor(db, place) : { open: true as const };
	return {
		sessionId: session.id,
		paper: session.paper.title,
		site: session.site.name,
		zone,
		opens: reckoning.window.opens,
		state: STATE_NAMES[sitting.state],
		isToCome,
		told: isToCome ? dayToldTo(one) : [],
		binds: isToCome ? await toldOf(db, one) : [],
		// Whoever has not come by the last entry is refused at the door; whoever is inside goes on.
		isNow:
			isToCome &&
			sitting.state !== 'set_aside' &&
			now >= reckoning.doorOpens &&
			reckoning.phase !== 'over' &&
			(sitting.state !== 'expected' || reckoning.lastEntry === null || now <= reckoning.lastEntry),
		closed: standing.open ? null : standing.why,
		link: slip ? `/sit?code=${slip}` : '/sit'
	};
}
