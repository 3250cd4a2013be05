import {
	LOADING_MS,
	MINUTE,
	type MergedGrants,
	type Phase,
	type Stop,
	type TimingRules,
	type Track,
	type Window
} from './rules';

/** Everything that time says about one sitting at one instant. Instants and lengths in milliseconds. */
export type Reckoning = {
	phase: Phase;
	window: Window;
	/** The window is the candidate's own, not the session's. */
	ownWindow: boolean;
	doorOpens: number;
	/** The last instant of entry; null: there is no end to it. */
	lastEntry: number | null;
	/** The window's end with credits; null: it stays open. */
	windowEnd: number | null;
	/** Working time granted, without credits; null: no limit. */
	allotted: number | null;
	credits: number;
	/** When the clock started; null: it has not. */
	origin: number | null;
	/** Length of all stops that count, overlaps once. */
	stopped: number;
	/** The clock stands still: the paper is still loading, or a stop that counts is going on. */
	standing: boolean;
	/** Where limit, credits and stops alone would end it. */
	naturalDeadline: number | null;
	deadline: number | null;
	/** What the close takes from the full time, as it looks now. */
	cut: number;
	/** Until when answers are taken; those after the deadline are late. */
	graceEnds: number | null;
	/**
	 * When they finish at the latest, as it looks now: who has not begun, from the last instant at which they may. null: no
	 * limit, or no end of entry.
	 */
	latestFinish: number | null;
	/** Working time left; null: no limit. Stands still during a stop that counts, unless the close cuts. */
	remaining: number | null;
	/** Beginning later than this costs minutes; null: never does. */
	latestFullStart: number | null;
	/** Soonest last. `due` once that few minutes are left; the reader shows each once. */
	warnings: { minutes: number; due: boolean }[];
};

/** Whether time ends the work of anybody: by a limit, by the proctor, or by a close that cuts. */
export function endsByTime({ limitMinutes, endedBy, atClose }: TimingRules): boolean {
	return limitMinutes !== null || endedBy === 'proctor' || atClose === 'cut';
}

/** Minutes of work that limit and grants add up to; null: no limit. Fractions round up, in the candidate's favour. */
export function allottedMinutes(rules: TimingRules, grants: MergedGrants): number | null {
	if (rules.limitMinutes === null || grants.unlimited) return null;
	// 50 × 1.1 is 55.000000000000007 in binary: without the nudge, ceil would give a minute to some and not to others.
	const scaled = Math.ceil(rules.limitMinutes * grants.factor - 1e-9);
	const total = scaled + grants.extraMinutes;
	return rules.maxLimitMinutes === null ? total : Math.min(total, rules.maxLimitMinutes);
}

/**
 * Whether the proctor's word ends it. Whoever goes on from another session, or has a window of their own, is not in that
 * room's time: they have what is planned.
 */
function isEndedByHand(rules: TimingRules, grants: MergedGrants, track: Track): boolean {
	const { clockStartedAt, roomStartedAt } = track;
	const isOfTheRoom = clockStartedAt === null || roomStartedAt === null || clockStartedAt >= roomStartedAt;
	return rules.endedBy === 'proctor' && grants.window === null && isOfTheRoom;
}

/**
 * What the room's time comes to for one candidate, in ms: as long as the room had, multiplied for whoever has a factor.
 * null: the proctor has not ended it.
 */
function allottedByHand(rules: TimingRules, grants: MergedGrants, track: Track): number | null {
	const from = track.roomStartedAt ?? track.clockStartedAt;
	if (grants.unlimited || track.timeCalledAt === null || from === null) return null;
	const room = Math.max(0, track.timeCalledAt - from);
	const scaled = grants.factor === 1 ? room : Math.ceil((room * grants.factor) / MINUTE - 1e-9) * MINUTE;
	// The cap is on what is granted: it takes nothing of what the room had.
	return Math.max(room, Math.min(scaled + grants.extraMinutes * MINUTE, inMs(rules.maxLimitMinutes) ?? Infinity));
}

const inMs = (minutes: number | null) => (minutes === null ? null : minutes * MINUTE);

/** How long a session without an end and without a limit is taken to last. */
const NO_LIMIT_MINUTES = 60;

/** Until when a window is taken to last where others plan around it: its end, or without one the time of the paper. */
export function lastsUntil(rules: Pick<TimingRules, 'limitMinutes'>, window: Window): number {
	return window.closes ?? window.opens + (rules.limitMinutes ?? NO_LIMIT_MINUTES) * MINUTE;
}

/**
 * Until when work goes on in a session whose last finishes then, grace included; where no end can be told, until the window's
 * end or the time of the paper.
 * @param finishes each one's latest finish
 */
export function workLastsUntil(rules: TimingRules, window: Window, finishes: (number | null)[]): number {
	if (rules.atClose === 'cut' && window.closes !== null) return window.closes;
	const known = finishes.filter((at) => at !== null);
	const worked = known.length === 0 ? lastsUntil(rules, window) : Math.max(...known) + rules.graceMinutes * MINUTE;
	return Math.max(worked, window.closes ?? 0);
}

/** The last instant at which somebody may still arrive in a window; null: there is no end to it. */
export function lastEntryOf(rules: Pick<TimingRules, 'lastEntryMinutes'>, window: Window): number | null {
	return rules.lastEntryMinutes === null ? window.closes : window.opens + rules.lastEntryMinutes * MINUTE;
}

/**
 * The one place where time is worked out. Pure: `now` is given, nothing is remembered.
 *
 * - `naturalDeadline = origin + allotted + credits + stopped`.
 * - With `cut` the deadline is the earlier of that and the window's end, with `finish` it is that alone.
 * - With an own window that opens at another time the room's start is not this candidate's: their clock starts when
 *   they begin, whatever `clockStarts` says.
 */
export function reckon(
	rules: TimingRules,
	sessionWindow: Window,
	grants: MergedGrants,
	track: Track,
	now: number
): Reckoning {
	const window = grants.window ?? sessionWindow;
	const allotted = isEndedByHand(rules, grants, track)
		? allottedByHand(rules, grants, track)
		: inMs(allottedMinutes(rules, grants));
	const creditsHere = grants.creditsMinutes * MINUTE;
	const credits = creditsHere + grants.earlierCreditsMinutes * MINUTE;
	const windowEnd = window.closes === null ? null : window.closes + creditsHere;
	const origin = originOf(rules, sessionWindow, window, track);

	const counting = track.stops.filter((stop) => stopCounts(rules.clockStops, stop));
	const stopped = origin === null ? 0 : unionLength(counting, origin, now);
	const isLoading = track.beganAt !== null && track.clockStartedAt === null && now < origin!;
	const standing =
		isLoading ||
		(track.beganAt !== null && counting.some((stop) => stop.from <= now && (stop.to === null || stop.to > now)));

	const naturalDeadline = origin === null || allotted === null ? null : origin + allotted + credits + stopped;
	const closesAt =
		rules.atClose === 'cut' && origin !== null && windowEnd !== null && !track.isCarriedOver
			? windowEnd + awayBefore(windowEnd, track.stops, origin, now)
			: null;
	const deadline = earliest(naturalDeadline, closesAt);
	const graceEnds = deadline === null ? null : deadline + rules.graceMinutes * MINUTE;
	const remaining =
		origin === null
			? remainingBefore(allotted, credits, rules, windowEnd, now)
			: remainingAt(naturalDeadline, closesAt, origin, now);
	const latestFullStart = windowEnd === null || allotted === null ? null : windowEnd - allotted - credits;
	const lastEntry = lastEntryOf(rules, { opens: window.opens, closes: windowEnd });
	/** With a common start that start; else whoever comes at the last moment, or begins now when that has passed. */
	const latestBeginning = () => {
		const last = startsWithRoom(rules, sessionWindow, window) ? window.opens : earliest(lastEntry, windowEnd);
		return last === null ? null : Math.max(last, now);
	};

	return {
		phase: phaseAt({ rules, window, windowEnd, track, deadline, graceEnds, now }),
		window,
		ownWindow: grants.window !== null,
		doorOpens: window.opens - rules.doorOpensMinutes * MINUTE,
		lastEntry,
		windowEnd,
		allotted,
		credits,
		origin,
		stopped,
		standing,
		naturalDeadline,
		deadline,
		cut: cutBy({ rules, windowEnd, naturalDeadline, allotted, credits, origin, window, now }),
		graceEnds,
		latestFinish: origin === null ? finishFrom(latestBeginning(), { allotted, credits, rules, windowEnd }) : deadline,
		remaining,
		latestFullStart,
		warnings: warningsAt(rules, allotted, remaining, track.beganAt !== null)
	};
}

/**
 * The sitting's own clock, once it has one. Until the first question is on the screen it starts a minute after beginning,
 * which is the latest that it can. Who has not begun yet shares the room's clock where that is the rule.
 */
function originOf(rules: TimingRules, session: Window, window: Window, track: Track): number | null {
	const own = ownOrigin(track);
	if (own !== null) return own;
	return startsWithRoom(rules, session, window) ? track.roomStartedAt : null;
}

const startsWithRoom = (rules: TimingRules, session: Window, window: Window) =>
	rules.clockStarts === 'room' && window.opens === session.opens;

/** When somebody ends who begins at that instant; null: no limit, or no end of beginning. */
function finishFrom(
	begun: number | null,
	{
		allotted,
		credits,
		rules,
		windowEnd
	}: Pick<Reckoning, 'allotted' | 'credits' | 'windowEnd'> & { rules: TimingRules }
): number | null {
	const full = begun === null || allotted === null ? null : begun + allotted + credits;
	return rules.atClose === 'cut' ? earliest(full, windowEnd) : full;
}

/** When the clock of somebody who has begun starts, at the latest; null: they have not. */
export function ownOrigin({ clockStartedAt, beganAt }: Track): number | null {
	return clockStartedAt ?? (beganAt === null ? null : beganAt + LOADING_MS);
}

/** Whether a stop gives its time back. A break that was granted does whatever the rule sheet says of holds. */
export function stopCounts(clockStops: TimingRules['clockStops'], stop: Stop): boolean {
	if (stop.counts !== undefined) return stop.counts;
	switch (stop.why) {
		case 'handed_in':
		case 'carried_over':
		case 'set_aside':
		case 'away':
			return true;
		case 'break':
			return stop.stopsClock !== false;
		case 'hold':
			return clockStops !== 'never' && stop.stopsClock !== false;
		case 'moved':
			return clockStops !== 'never';
		case 'lost':
			return clockStops === 'hold_or_lost';
	}
}

/**
 * What a close waits for: nobody's time runs out while nobody could answer. An absence of the server that began after the
 * close moves nothing.
 */
function awayBefore(windowEnd: number, stops: Stop[], origin: number, now: number): number {
	return unionLength(
		stops.filter(({ why, from }) => why === 'away' && from < windowEnd),
		origin,
		now
	);
}

/**
 * How much of these stops ran on the clock: what of them lies in no stop that counts.
 * @param stops all that the sitting has
 * @param why of which kind
 */
export function ranOn(
	stops: Stop[],
	why: Stop['why'],
	clockStops: TimingRules['clockStops'],
	from: number,
	now: number
): number {
	const counting = stops.filter((stop) => stopCounts(clockStops, stop));
	const asked = stops.filter((stop) => stop.why === why);
	return unionLength([...counting, ...asked], from, now) - unionLength(counting, from, now);
}

/** Length of the union of the stops between `from` and `now`; an open stop lasts until `now`. */
export function unionLength(stops: Stop[], from: number, now: number): number {
	const spans = stops
		.map((stop) => ({ from: Math.max(stop.from, from), to: Math.min(stop.to ?? now, now) }))
		.filter((span) => span.to > span.from)
		.sort((a, b) => a.from - b.from);
	let total = 0;
	let reached = from;
	for (const span of spans) {
		if (span.to <= reached) continue;
		total += span.to - Math.max(span.from, reached);
		reached = span.to;
	}
	return total;
}

function earliest(a: number | null, b: number | null): number | null {
	if (a === null) return b;
	return b === null ? a : Math.min(a, b);
}

/** The full time until the clock starts, then what is left of it; never more than the close allows. */
function remainingAt(naturalDeadline: number | null, closesAt: number | null, origin: number, now: number) {
	const own = naturalDeadline === null ? null : Math.max(0, naturalDeadline - Math.max(now, origin));
	return earliest(own, closesAt === null ? null : Math.max(0, closesAt - now));
}

/** Before the clock starts: what the candidate would have if it started now, so that it can be told beforehand. */
function remainingBefore(
	allotted: number | null,
	credits: number,
	rules: TimingRules,
	windowEnd: number | null,
	now: number
): number | null {
	const full = allotted === null ? null : allotted + credits;
	const untilClose = rules.atClose === 'cut' && windowEnd !== null ? Math.max(0, windowEnd - now) : null;
	return earliest(full, untilClose);
}

function cutBy(at: {
	rules: TimingRules;
	windowEnd: number | null;
	naturalDeadline: number | null;
	allotted: number | null;
	credits: number;
	origin: number | null;
	window: Window;
	now: number;
}): number {
	if (at.rules.atClose !== 'cut' || at.windowEnd === null || at.allotted === null) return 0;
	const wouldEnd = at.naturalDeadline ?? Math.max(at.now, at.window.opens) + at.allotted + at.credits;
	return Math.max(0, wouldEnd - at.windowEnd);
}

function phaseAt(at: {
	rules: TimingRules;
	window: Window;
	windowEnd: number | null;
	track: Track;
	deadline: number | null;
	graceEnds: number | null;
	now: number;
}): Phase {
	if (at.track.beganAt !== null) {
		if (at.deadline === null || at.now < at.deadline) return 'running';
		return at.graceEnds !== null && at.now < at.graceEnds ? 'grace' : 'over';
	}
	const roomIsOver = at.deadline !== null && at.now >= at.deadline;
	if (roomIsOver || (at.windowEnd !== null && at.now >= at.windowEnd)) return 'over';
	if (at.now >= at.window.opens) return 'open';
	return at.now >= at.window.opens - at.rules.doorOpensMinutes * MINUTE ? 'door' : 'before';
}

/** A warning as long as the whole allotment would fire on beginning and warn of nothing. */
function warningsAt(rules: TimingRules, allotted: number | null, remaining: number | null, begun: boolean) {
	return rules.warnAtMinutes
		.filter((minutes) => allotted === null || minutes * MINUTE < allotted)
		.sort((a, b) => b - a)
		.map((minutes) => ({
			minutes,
			due: begun && remaining !== null && remaining > 0 && remaining <= minutes * MINUTE
		}));
}
