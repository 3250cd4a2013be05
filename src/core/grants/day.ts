import { instantFromLocal, localDate, MINUTE, type Window } from '../time';

/** What somebody has to be at: a class, another sitting. Epoch ms. */
export type Commitment = { from: number; to: number; title: string };

/** A room and who has it. */
export type RoomDay = {
	id: string;
	name: string;
	seats: number;
	/** Sessions and own windows in it: how many sit there, and who supervises them. The candidate asked about is not counted. */
	held: { from: number; to: number; title: string; people: number; proctorIds: string[] }[];
};
/** Somebody who may supervise, and where they are. */
export type ProctorDay = { id: string; name: string; busy: { from: number; to: number; roomId: string }[] };

/** Local times between which a site's rooms may be used, `08:00` to `18:00`. */
export type DailyHours = { opens: string; closes: string };

/** All that bears on when and where one candidate can sit, over the days that were looked at. */
export type Days = {
	now: number;
	zone: string;
	/** When everyone sits. */
	common: Window;
	commitments: Commitment[];
	hours: DailyHours | null;
	rooms: RoomDay[];
	proctors: ProctorDay[];
	/** The room of their session. */
	roomId: string;
	/** The instant at which the administration's last day is over; null: it has none. */
	endsAt: number | null;
	/** Right answers are shown to others: since when; null: they are not. */
	answersShownAt: number | null;
};

/** Where somebody sits and who is with them; no proctor of their own where one is there anyway. */
export type Placed = { roomId: string; proctorId: string | null };

export type Span = { from: number; to: number };

/** The hours of the local day on which an instant lies; null: they can't be told, as when the clocks jump over them. */
export function hoursOn(hours: DailyHours | null, at: number, zone: string): Span | null {
	if (hours === null) return null;
	const date = localDate(at, zone);
	const [from, to] = [hours.opens, hours.closes].map((time) => instantFromLocal(date, time, zone));
	return from.ok && to.ok ? { from: from.at, to: to.at } : null;
}

export function overlap(a: Span, b: Span): boolean {
	return a.from < b.to && b.from < a.to;
}

/** The most people who are in a room at one time within a span. */
export function mostIn(room: RoomDay, span: Span): number {
	const there = room.held.filter((one) => overlap(one, span));
	const edges = [span.from, ...there.map((one) => one.from).filter((from) => from > span.from)];
	return Math.max(
		...edges.map((at) => there.filter((one) => one.from <= at && at < one.to).reduce((sum, one) => sum + one.people, 0))
	);
}

/** Whether somebody supervises in a room during the whole of a span. */
export function isSupervised(room: RoomDay, span: Span): boolean {
	const watched = room.held.filter((one) => one.proctorIds.length > 0).sort((a, b) => a.from - b.from);
	let reached = span.from;
	for (const one of watched) {
		if (one.from <= reached && one.to > reached) reached = one.to;
	}
	return reached >= span.to;
}

/** A proctor is free when nothing holds them in another room. */
export function isFree(proctor: ProctorDay, span: Span, roomId: string): boolean {
	return !proctor.busy.some((one) => one.roomId !== roomId && overlap(one, span));
}

/** The stretches of a span in which nothing is, in their order. */
export function gapsIn(span: Span, taken: Span[]): Span[] {
	const gaps: Span[] = [];
	let reached = span.from;
	for (const one of taken.filter((each) => overlap(each, span)).sort((a, b) => a.from - b.from)) {
		if (one.from > reached) gaps.push({ from: reached, to: one.from });
		reached = Math.max(reached, one.to);
	}
	if (reached < span.to) gaps.push({ from: reached, to: span.to });
	return gaps;
}

/** Minutes of a length, whole ones, in favour of whoever needs them. */
export const wholeMinutes = (ms: number) => Math.ceil(ms / MINUTE - 1e-9);
