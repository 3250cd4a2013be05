import { judgeEntry } from '../access';
import type { SessionRules } from '../session';
import { sameLocalDay, type Reckoning, type Window } from '../time';
import type { Context } from './commands';
import type { Sitting } from './sitting';

/** A sitting in its session, with what time says of it there. */
export type Situation = {
	sitting: Sitting;
	session: {
		window: Window;
		rules: SessionRules;
		roomStartedAt: number | null;
		openedEarlyAt: number | null;
		endedAt: number | null;
		site: { zone: string };
	};
	reckoning: Reckoning;
	/** A grant says that it may be reopened on a later day. */
	merge: { mayReopen: boolean };
};

/**
 * What `decide` needs to know of the world.
 * @param facts what only the caller can know: what was typed, what was proven
 */
export function circumstances(one: Situation, now: number, facts: Partial<Context> = {}): Context {
	const { sitting, session, reckoning, merge } = one;
	const { timing } = session.rules;
	const inOwnWindow = reckoning.ownWindow && (reckoning.windowEnd === null || now < reckoning.windowEnd);
	return {
		now,
		sessionOver: session.endedAt !== null && !inOwnWindow,
		entry: judgeEntry({ reckoning, begun: sitting.beganAt !== null, sessionEnded: session.endedAt !== null, now }),
		admission: session.rules.admission,
		startWord: session.rules.startWord === null ? 'not_asked' : 'wrong',
		finishWord: session.rules.finishWord === null ? 'not_asked' : 'wrong',
		identityConfirmed: false,
		client: session.rules.lockdown.level === 'sealed' ? 'missing' : 'not_asked',
		deviceChecked: session.rules.door.checklist !== 'needed',
		roomWaits: roomWaits(one),
		beforeOpening: now < opensFor(one),
		roomClock: sharesRoomClock(one) ? session.roomStartedAt : null,
		clockStops: timing.clockStops,
		deadline: reckoning.deadline,
		remaining: reckoning.remaining,
		ownRemaining: ownRemaining(reckoning, now),
		over: reckoning.phase === 'over',
		atTimeUp: timing.atTimeUp,
		endedToday: sitting.ended !== null && sameLocalDay(sitting.ended.at, now, session.site.zone),
		reopenGranted: merge.mayReopen,
		sitsAgain: false,
		work: null,
		...facts
	};
}

/** The clock starts with the room for this sitting: it has no window that opens at another time, and no clock yet. */
function sharesRoomClock({ session, reckoning, sitting }: Situation): boolean {
	const { clockStarts } = session.rules.timing;
	return clockStarts === 'room' && reckoning.window.opens === session.window.opens && sitting.clockStartedAt === null;
}

/** The room is started by its proctor, and has not been yet: also those who go on with a clock of their own wait for it. */
export function roomWaits({ session, reckoning }: Pick<Situation, 'session' | 'reckoning'>): boolean {
	return session.rules.timing.clockStarts === 'room' && session.roomStartedAt === null && !reckoning.ownWindow;
}

/** From when work may begin; a session that was started early is open from then on for all who share its window. */
export function opensFor({ session, reckoning }: Pick<Situation, 'session' | 'reckoning'>): number {
	const early = session.roomStartedAt ?? session.openedEarlyAt;
	const { opens } = reckoning.window;
	return early !== null && opens === session.window.opens ? Math.min(early, opens) : opens;
}

/** What is left of the working time whatever closes here, in ms; null: no limit, or no clock. */
export function ownRemaining({ naturalDeadline, origin }: Reckoning, now: number): number | null {
	return naturalDeadline === null ? null : Math.max(0, naturalDeadline - Math.max(now, origin ?? now));
}
