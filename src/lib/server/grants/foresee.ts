import {
	checkGrant,
	hoursOn,
	misfitInWords,
	proposeSlots,
	type Asked,
	type DayLook,
	type Days,
	type Foreseen,
	type Grant,
	type GrantEffect,
	type Span
} from '$core/grants';
import { fullName } from '$core/names';
import { hasEnded, isAtWork, isUnfinished, STATE_NAMES } from '$core/sitting';
import { minutesInWords, allottedMinutes, localMidnightAfter, MINUTE, timeAndDate } from '$core/time';
import type { Query } from '../db';
import { draftGrant, type NewGrant } from '../records';
import { offerAgain } from '../session';
import { dayToldTo, loadSitting, loadSittings, regrant, type Loaded } from '../sitting';
import { daysOf, siteDays, type SiteDays } from './days';
import { effectWordsOf, reachedBy } from './give';

/** Windows are proposed on these steps; any other minute can be typed. */
const STEP_MINUTES = 5;
const MOST_PROPOSALS = 4;
/** Whoever did not sit when the others did is looked for so many days ahead. */
const AHEAD_MS = 8 * 24 * 60 * MINUTE;
/** So much later somebody may come and lose nothing, where there is room. */
const SPARE_MINUTES = 15;

/** The effect on every sitting that the grants reach, and with one person their day and the windows that do. */
export async function foreseeGrants(
	db: Query,
	grants: NewGrant[],
	focus: string | null,
	now: number
): Promise<Foreseen> {
	const sites = new Map<string, SiteDays>();
	const effects: GrantEffect[] = [];
	let look: DayLook | null = null;
	for (const grant of grants) {
		for (const one of await loadSittings(db, await reachedBy(db, grant), now)) {
			if (one.sitting.id !== focus && isPast(one)) continue;
			const then = regrant(one, [...one.grants, draftGrant(grant)], now);
			const days = await daysFor(db, then, sites, now);
			effects.push(effectOn(one, then, days));
			if (one.sitting.id === focus) look = lookAt(then, days);
		}
	}
	return { effects, look };
}

/** How somebody's day stands now, with the windows that would do. */
export async function lookNow(db: Query, sittingId: string, now: number): Promise<Foreseen> {
	const one = await loadSitting(db, sittingId, now);
	if (!one) return { effects: [], look: null };
	const days = await daysFor(db, one, new Map(), now);
	return { effects: [effectOn(one, one, days)], look: lookAt(one, days) };
}

/** What was sat, or missed, in a session that is over does not change. */
const isPast = ({ sitting, session }: Loaded) => session.endedAt !== null && !isUnfinished(sitting.state);

/**
 * Their days around the session, or from now on when that is over.
 * @param sites what is read of sites, kept from one person to the next
 */
export async function daysFor(
	db: Query,
	one: Loaded,
	sites: Map<string, SiteDays>,
	now: number,
	within: Span = lookedAt(one, now)
): Promise<Days> {
	const key = `${one.session.site.id} ${within.from} ${within.to}`;
	const site = sites.get(key) ?? (await siteDays(db, one.session.site.id, within));
	sites.set(key, site);
	return daysOf(db, one, site, within, now);
}

function lookedAt({ session, reckoning }: Loaded, now: number): Span {
	const { zone } = session.site;
	const end = reckoning.windowEnd ?? session.window.opens;
	const isOver = session.endedAt !== null || end <= now;
	const opens = Math.min(session.window.opens, reckoning.window.opens);
	const midnight = localMidnightAfter(isOver ? now : opens, zone);
	const from = localMidnightAfter(midnight - 36 * 60 * MINUTE, zone);
	return { from, to: isOver ? from + AHEAD_MS : Math.max(midnight, (reckoning.windowEnd ?? 0) + MINUTE) };
}

/** What `checkGrant` is asked about somebody: the rest of their time once they have begun, else all of it. */
export function askedOf({ session, reckoning, merge, sitting }: Loaded, now: number): Asked {
	const { timing } = session.rules;
	const allotted = allottedMinutes(timing, merge.grants);
	const common = {
		place:
			merge.room || merge.proctor
				? { roomId: merge.room?.id ?? session.room.id, proctorId: merge.proctor?.id ?? null }
				: null,
		// A room that keeps seats apart is a place for them too.
		apart: merge.separateRoom && (merge.room !== null || session.room.plan.apart.length === 0),
		cuts: timing.atClose === 'cut',
		lastEntry: reckoning.lastEntry
	};
	if (sitting.beganAt !== null) {
		const left = reckoning.naturalDeadline === null ? null : Math.max(0, reckoning.naturalDeadline - now);
		const minutes = left === null ? null : Math.ceil(left / MINUTE);
		// Whoever has begun and may finish is stopped by no close.
		const closes = timing.atClose === 'cut' ? reckoning.windowEnd : null;
		return { ...common, window: { opens: now, closes }, minutes, startsAtOpening: true };
	}
	return {
		...common,
		window: { opens: reckoning.window.opens, closes: reckoning.windowEnd },
		minutes: allotted === null ? null : allotted + reckoning.credits / MINUTE,
		startsAtOpening: timing.clockStarts === 'room' && !reckoning.ownWindow
	};
}

/** What stands in the way of somebody having their time; nothing for those who are done. */
export function misfitsOf(one: Loaded, days: Days): ReturnType<typeof checkGrant> {
	if (!isUnfinished(one.sitting.state) && one.sitting.state !== 'absent') return [];
	return checkGrant(days, askedOf(one, days.now));
}

function effectOn(one: Loaded, then: Loaded, days: Days): GrantEffect {
	const zone = one.session.site.zone;
	const misfits = misfitsOf(then, days);
	return {
		sittingId: one.sitting.id,
		name: fullName(one.candidate),
		session: one.session.name,
		before: effectWordsOf(one),
		after: effectWordsOf(then),
		misfits: misfits.map((misfit) => misfitInWords(misfit, zone)),
		notes: notesOn(one, then, misfits.length === 0, days.now)
	};
}

/** What has to happen before a further attempt is sat: nothing plans one by itself. */
function attemptNote(then: Loaded, now: number): string {
	if (!hasEnded(then.sitting.state)) return 'It counts once this attempt has been handed in.';
	const offer = offerAgain(then, now);
	if (offer === null) return 'No session is open for it: put them into another session of this paper.';
	const from = offer.from === null ? 'now' : `from ${timeAndDate(offer.from, then.session.site.zone, now)}`;
	return `They begin attempt ${offer.attempt} of ${offer.most} ${from}, on the device on which they handed in. Elsewhere it takes another session of this paper.`;
}

function notesOn(one: Loaded, then: Loaded, fits: boolean, now: number): string[] {
	const { sitting, session } = one;
	const zone = session.site.zone;
	const notes: string[] = [];
	if (then.merge.extraAttempts > one.merge.extraAttempts) notes.push(attemptNote(then, now));
	else if (hasEnded(sitting.state) && sitting.ended)
		notes.push(
			`${STATE_NAMES[sitting.state]} at ${timeAndDate(sitting.ended.at, zone, now)}: this counts once the sitting is reopened.`
		);
	const needs = allottedMinutes(session.rules.timing, then.merge.grants);
	const had = allottedMinutes(session.rules.timing, one.merge.grants);
	if (fits && needs !== null && had !== null && needs > had && !then.reckoning.ownWindow && isUnfinished(sitting.state))
		notes.push('The session’s window is long enough: no window of their own is needed.');
	const window = then.merge.ownWindow;
	if (
		window &&
		then.merge.ownWindow !== one.merge.ownWindow &&
		isWithin(window, session.window) &&
		session.endedAt === null
	)
		notes.push('Everyone’s window is open for all of that time already.');
	return notes;
}

const isWithin = (a: { opens: number; closes: number | null }, b: { opens: number; closes: number | null }) =>
	a.opens >= b.opens && b.closes !== null && a.closes !== null && a.closes <= b.closes;

/** Their day as it would be. */
function lookAt(one: Loaded, days: Days): DayLook {
	const { session, reckoning, merge } = one;
	const asked = askedOf(one, days.now);
	const { zone } = days;
	return {
		zone,
		base: session.window,
		own: merge.ownWindow,
		work: {
			from: reckoning.origin ?? reckoning.window.opens,
			to: one.sitting.ended?.at ?? reckoning.latestFinish
		},
		commitments: days.commitments,
		hours: hoursOn(days.hours, reckoning.window.opens, zone),
		minutes: asked.minutes,
		proposals: one.sitting.beganAt !== null && isUnfinished(one.sitting.state) ? [] : proposalsFor(one, days),
		told: dayToldTo(one),
		rooms: days.rooms.map(({ id, name }) => ({ id, name })),
		proctors: days.proctors.map(({ id, name }) => ({ id, name }))
	};
}

/** Windows that would do for them, on the session's day, or on the next days when that is over. */
function proposalsFor(one: Loaded, days: Days, minutes = askedOf(one, days.now).minutes) {
	return proposeSlots(days, {
		minutes,
		apart: one.merge.separateRoom,
		// A window of one's own is always long enough, whatever closes then.
		cuts: true,
		stepMinutes: STEP_MINUTES,
		within: lookedAt(one, days.now),
		most: MOST_PROPOSALS,
		weekdays: one.session.window.opens < days.now,
		spareMinutes: SPARE_MINUTES
	});
}

/** Whose work would be over at once if this grant were taken back: a sentence each. */
export async function endedBy(db: Query, grant: Grant, now: number): Promise<string[]> {
	const reached = await loadSittings(db, await reachedBy(db, grant), now);
	return reached
		.filter((one) => isAtWork(one.sitting) && one.reckoning.phase !== 'over')
		.map((one) => ({
			one,
			then: regrant(
				one,
				one.grants.filter((each) => each.id !== grant.id),
				now
			)
		}))
		.filter(({ then }) => then.reckoning.phase === 'over' || then.reckoning.phase === 'grace')
		.map(({ one }) => {
			const used = Math.floor((now - (one.reckoning.origin ?? now) - one.reckoning.stopped) / MINUTE);
			return `${fullName(one.candidate)} is at work and has used ${minutesInWords(used)}: without it their time would be over at once.`;
		});
}
