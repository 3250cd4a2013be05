import { counted } from '../names';
import { clockTime, longDate, MINUTE, sameLocalDay, timeAndDate, type Window } from '../time';
import { hoursOn, isFree, isSupervised, mostIn, overlap, wholeMinutes, type Days, type Placed } from './day';

/** What is to be looked at: a time somebody needs, in a window, at a place. */
export type Asked = {
	window: Window;
	/** null: no limit; the window is then all that counts. */
	minutes: number | null;
	/** null: with the others, in the session's room. */
	place: Placed | null;
	/** Sits in a room without others. */
	apart: boolean;
	/** The window's end ends the work. */
	cuts: boolean;
	/** The clock starts at the opening for everyone, so that nobody can begin later without losing time. */
	startsAtOpening: boolean;
	/** The latest that they may come in; null: until the window closes. */
	lastEntry: number | null;
};

/** One thing that does not fit. Lengths in minutes. */
export type Misfit =
	| { kind: 'past'; closes: number }
	| { kind: 'short'; minutes: number; opens: number; closes: number }
	| { kind: 'commitment'; title: string; from: number; minutes: number }
	| { kind: 'before_hours'; opens: number; minutes: number }
	| { kind: 'after_hours'; closes: number; minutes: number }
	| { kind: 'room_taken'; room: string; title: string; from: number }
	| { kind: 'room_full'; room: string; seats: number }
	| { kind: 'no_proctor'; room: string }
	| { kind: 'proctor_busy'; name: string }
	| { kind: 'after_days'; endsAt: number }
	| { kind: 'answers_shown'; at: number }
	| { kind: 'over_midnight' };

/**
 * Looks for all that stands in the way of somebody having their time, before it is given. What comes first weighs most.
 * A candidate who may begin at any time needs one free stretch in the window; one who begins with the others works from
 * the opening.
 */
export function checkGrant(days: Days, asked: Asked): Misfit[] {
	const { window } = asked;
	const found: Misfit[] = [];
	if (window.closes !== null && window.closes <= days.now) return [{ kind: 'past', closes: window.closes }];
	const from = asked.startsAtOpening ? window.opens : Math.max(window.opens, days.now);
	const start = startIn(days, asked, from);
	const work = workFrom(start ?? from, asked);
	if (start === null) found.push(...inTheWay(days, asked, from));

	const hours = hoursOn(days.hours, work.from, days.zone);
	if (hours && work.from < hours.from)
		found.push({ kind: 'before_hours', opens: hours.from, minutes: wholeMinutes(hours.from - work.from) });
	if (hours && work.to > hours.to)
		found.push({ kind: 'after_hours', closes: hours.to, minutes: wholeMinutes(work.to - hours.to) });
	if (!hours && work.to > work.from && !sameLocalDay(work.from, work.to - 1, days.zone))
		found.push({ kind: 'over_midnight' });
	if (days.endsAt !== null && work.to > days.endsAt) found.push({ kind: 'after_days', endsAt: days.endsAt });
	if (days.answersShownAt !== null && work.to > days.answersShownAt)
		found.push({ kind: 'answers_shown', at: days.answersShownAt });
	return [...found, ...placeMisfits(days, asked, work)];
}

/** When they would be at work; without a limit as long as the window is open. */
function workFrom(start: number, { minutes, window, cuts }: Asked): { from: number; to: number } {
	const full = minutes === null ? (window.closes ?? start) : start + minutes * MINUTE;
	return { from: start, to: cuts && window.closes !== null ? Math.max(start, Math.min(full, window.closes)) : full };
}

/** The earliest start at which they have all of their time and nothing else to be at; null: there is none. */
function startIn(days: Days, asked: Asked, from: number): number | null {
	const { minutes, window } = asked;
	const length = (minutes ?? 0) * MINUTE;
	const last = asked.startsAtOpening ? from : (asked.lastEntry ?? window.closes ?? from);
	const starts = [from, ...days.commitments.map((one) => one.to).filter((to) => to > from && to <= last)];
	return (
		starts
			.sort((a, b) => a - b)
			.find((start) => {
				if (asked.cuts && window.closes !== null && start + length > window.closes) return false;
				return !days.commitments.some((one) => overlap(one, { from: start, to: start + length }));
			}) ?? null
	);
}

function inTheWay(days: Days, { minutes, window, cuts }: Asked, from: number): Misfit[] {
	const found: Misfit[] = [];
	const length = (minutes ?? 0) * MINUTE;
	const until = from + length;
	if (cuts && window.closes !== null && until > window.closes)
		found.push({
			kind: 'short',
			minutes: wholeMinutes(until - window.closes),
			opens: window.opens,
			closes: window.closes
		});
	for (const one of days.commitments.filter((each) => overlap(each, { from, to: until })))
		found.push({
			kind: 'commitment',
			title: one.title,
			from: one.from,
			minutes: wholeMinutes(Math.min(until, one.to) - Math.max(from, one.from))
		});
	return found;
}

function placeMisfits(days: Days, { place, apart }: Asked, work: { from: number; to: number }): Misfit[] {
	if (work.to <= work.from) return [];
	const room = days.rooms.find((one) => one.id === (place?.roomId ?? days.roomId));
	if (!room) return [];
	const proctor = place?.proctorId ? days.proctors.find((one) => one.id === place.proctorId) : undefined;
	const others = room.held.filter((one) => overlap(one, work) && one.people > 0);
	const found: Misfit[] = [];
	if (apart && others.length > 0)
		found.push({ kind: 'room_taken', room: room.name, title: others[0].title, from: others[0].from });
	else if (mostIn(room, work) + 1 > room.seats) found.push({ kind: 'room_full', room: room.name, seats: room.seats });
	if (proctor && !isFree(proctor, work, room.id)) found.push({ kind: 'proctor_busy', name: proctor.name });
	if (!proctor && !isSupervised(room, work)) found.push({ kind: 'no_proctor', room: room.name });
	return found;
}

/** `10 minutes into Ship Handling at 10:30.` */
export function misfitInWords(misfit: Misfit, zone: string): string {
	switch (misfit.kind) {
		case 'past':
			return `The window closed at ${clockTime(misfit.closes, zone)}.`;
		case 'short':
			return `The window ${clockTime(misfit.opens, zone)} to ${timeAndDate(misfit.closes, zone, misfit.opens)} is ${misfit.minutes} min too short: it cuts the time granted.`;
		case 'commitment':
			return `${misfit.minutes} min into ${misfit.title} at ${clockTime(misfit.from, zone)}.`;
		case 'before_hours':
			return `The rooms open at ${clockTime(misfit.opens, zone)}, ${misfit.minutes} min later.`;
		case 'after_hours':
			return `The rooms close at ${clockTime(misfit.closes, zone)}, ${misfit.minutes} min earlier.`;
		case 'room_taken':
			return `The ${misfit.room} has ${misfit.title} from ${clockTime(misfit.from, zone)}; they are to sit apart.`;
		case 'room_full':
			return `All ${counted(misfit.seats, 'seat')} of the ${misfit.room} are taken then.`;
		case 'no_proctor':
			return `Nobody supervises in the ${misfit.room} for all of that time.`;
		case 'proctor_busy':
			return `${misfit.name} is in another room then.`;
		case 'after_days':
			return `The administration’s last day is over before: ${longDate(misfit.endsAt - 1, zone)}.`;
		case 'answers_shown':
			return `The right answers are shown to others from ${clockTime(misfit.at, zone)} on ${longDate(misfit.at, zone)}.`;
		case 'over_midnight':
			return 'This goes over midnight.';
	}
}

/** The same in a few words, for a list: `10 min into Ship Handling`. */
export function misfitInShort(misfit: Misfit): string {
	switch (misfit.kind) {
		case 'past':
			return 'window over';
		case 'short':
			return `${misfit.minutes} min short`;
		case 'commitment':
			return `${misfit.minutes} min into ${misfit.title}`;
		case 'before_hours':
		case 'after_hours':
			return `${misfit.minutes} min out of hours`;
		case 'room_taken':
			return 'no room apart';
		case 'room_full':
			return 'no seat';
		case 'no_proctor':
			return 'nobody supervises';
		case 'proctor_busy':
			return `${misfit.name} is elsewhere`;
		case 'after_days':
			return 'after the last day';
		case 'answers_shown':
			return 'answers are shown';
		case 'over_midnight':
			return 'over midnight';
	}
}
