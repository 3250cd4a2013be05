import { localDay, MINUTE, wallClock, type Window } from '../time';
import { checkGrant, type Asked } from './check-grant';
import {
	gapsIn,
	hoursOn,
	isFree,
	isSupervised,
	mostIn,
	overlap,
	type Commitment,
	type DailyHours,
	type Days,
	type Placed,
	type Span
} from './day';

/** A window that would do, and how far it is from the common time: ms, negative when earlier. */
export type Slot = { opens: number; closes: number; away: number };

export type Search = {
	needMinutes: number;
	/** When everyone sits. */
	around: Window;
	busy: Commitment[];
	hours: DailyHours | null;
	zone: string;
	/** Windows begin and, where there is room, end on multiples of this, in local time. */
	stepMinutes: number;
	/** Where to look: first and last instant. */
	within: Span;
	/** So much longer than needed where there is room, so that nobody who comes in a little later loses a minute. */
	spareMinutes?: number;
	/** Leave Saturdays and Sundays out. */
	weekdays?: boolean;
};

/**
 * All windows in which the time fits between what somebody has to be at, nearest to the common time first, of two at the
 * same distance the earlier. A window ends at the next step, or where the next commitment begins.
 */
export function findSlots(search: Search): Slot[] {
	const { needMinutes, around, stepMinutes, spareMinutes = 0, zone } = search;
	const need = needMinutes * MINUTE;
	const slots: Slot[] = [];
	for (const day of localDays(search.within, zone)) {
		if (search.weekdays && [6, 7].includes(wallClock(day.from, zone).weekday)) continue;
		const open = search.hours === null ? day : hoursOn(search.hours, day.from, zone);
		if (!open) continue;
		const span = { from: Math.max(open.from, search.within.from), to: Math.min(open.to, search.within.to) };
		for (const gap of gapsIn(span, search.busy)) {
			for (let opens = onStep(gap.from, stepMinutes, zone); opens + need <= gap.to; opens += stepMinutes * MINUTE) {
				const closes = onStep(opens + need + spareMinutes * MINUTE, stepMinutes, zone);
				slots.push({ opens, closes: Math.min(closes, gap.to), away: opens - around.opens });
			}
		}
	}
	return slots.sort((a, b) => Math.abs(a.away) - Math.abs(b.away) || a.opens - b.opens);
}

/** The local days of a span; they differ in length when the clocks change. */
function localDays(within: Span, zone: string): Span[] {
	const days: Span[] = [];
	for (let at = within.from; at < within.to;) {
		const { from, until } = localDay(at, zone);
		days.push({ from, to: until });
		at = until;
	}
	return days;
}

/** The instant, or the next whose local time is a multiple of the step. */
function onStep(at: number, stepMinutes: number, zone: string): number {
	const { hour, minute, second, millisecond } = wallClock(at, zone);
	const past = ((hour * 60 + minute) % stepMinutes) * MINUTE + second * 1_000 + millisecond;
	return past === 0 ? at : at + stepMinutes * MINUTE - past;
}

/** A window with the place that was found for it. */
export type Proposal = Slot & {
	room: { id: string; name: string };
	/** Somebody who has to come for it; null: supervised anyway. */
	proctor: { id: string; name: string } | null;
	/** Of the room's seats, taken by others then. */
	taken: number;
	seats: number;
};

export type Wanted = Pick<Asked, 'minutes' | 'apart' | 'cuts'> & {
	stepMinutes: number;
	within: Span;
	/** How many; they are at least half an hour apart. */
	most: number;
	weekdays?: boolean;
	spareMinutes?: number;
};

const APART_MS = 30 * MINUTE;

/** The windows that do, each with a room that has a seat and somebody who supervises. What is proposed fits by `checkGrant`. */
export function proposeSlots(days: Days, wanted: Wanted): Proposal[] {
	const { minutes, stepMinutes, spareMinutes, weekdays } = wanted;
	if (minutes === null) return [];
	const within = {
		from: Math.max(wanted.within.from, days.now),
		to: Math.min(wanted.within.to, days.endsAt ?? Infinity, days.answersShownAt ?? Infinity)
	};
	const { commitments: busy, hours, zone, common: around } = days;
	const slots = findSlots({
		needMinutes: minutes,
		around,
		busy,
		hours,
		zone,
		stepMinutes,
		within,
		spareMinutes,
		weekdays
	});
	const proposals: Proposal[] = [];
	for (const slot of slots) {
		if (proposals.length === wanted.most) break;
		if (proposals.some((one) => Math.abs(one.opens - slot.opens) < APART_MS)) continue;
		const work = { from: slot.opens, to: slot.opens + minutes * MINUTE };
		const place = placeFor(days, work, wanted.apart);
		if (!place) continue;
		const asked = { ...wanted, window: slot, place, startsAtOpening: true, lastEntry: null };
		if (checkGrant(days, asked).length > 0) continue;
		const room = days.rooms.find((one) => one.id === place.roomId)!;
		const proctor = days.proctors.find((one) => one.id === place.proctorId);
		proposals.push({
			...slot,
			room: { id: room.id, name: room.name },
			proctor: proctor ? { id: proctor.id, name: proctor.name } : null,
			taken: mostIn(room, work),
			seats: room.seats
		});
	}
	return proposals;
}

/**
 * Where somebody could sit then: with the others of their session, else in a room that is supervised anyway, else in an
 * empty one with somebody who is free. Of several the smallest.
 */
export function placeFor(days: Days, work: Span, apart: boolean): Placed | null {
	const rooms = [...days.rooms].sort(
		(a, b) => Number(b.id === days.roomId) - Number(a.id === days.roomId) || a.seats - b.seats
	);
	const fits = rooms.filter((room) => {
		const isEmpty = !room.held.some((one) => one.people > 0 && overlap(one, work));
		return apart ? isEmpty : mostIn(room, work) < room.seats;
	});
	const watched = fits.find((room) => isSupervised(room, work));
	if (watched) return { roomId: watched.id, proctorId: null };
	for (const room of fits) {
		const proctor = days.proctors.find((one) => isFree(one, work, room.id));
		if (proctor) return { roomId: room.id, proctorId: proctor.id };
	}
	return null;
}
