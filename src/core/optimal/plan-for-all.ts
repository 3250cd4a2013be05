import {
	findSlots,
	isFree,
	isSupervised,
	mostIn,
	overlap,
	placeFor,
	type Commitment,
	type DailyHours,
	type Days,
	type Placed,
	type ProctorDay,
	type RoomDay,
	type Span
} from '../grants';
import { MINUTE, type Window } from '../time';
import { solve, type Constraint, type Terms } from './program';

/** Somebody whose time does not fit where it is now. */
export type ToPlace = {
	id: string;
	minutes: number;
	/** When everyone of their session sits, and where. */
	common: Window;
	roomId: string;
	commitments: Commitment[];
	/** In a room without others. */
	apart: boolean;
};

/** A site's day, with those who are to be placed counted nowhere. */
export type PlaceDay = {
	people: ToPlace[];
	rooms: RoomDay[];
	proctors: ProctorDay[];
	hours: DailyHours | null;
	zone: string;
	within: Span;
	stepMinutes: number;
};

/** Where and when one of them would sit. */
export type Place = Placed & { id: string; opens: number; closes: number };
export type PlanForAll = {
	places: Place[];
	/** For whom nothing was found. */
	left: string[];
	/** Nothing better is possible among what was looked at; false: time was over, or the plain way was as good. */
	isBest: boolean;
};

/** What a plan costs; somebody who is left out costs more than all else. In minutes that somebody is moved. */
const COST = { left: 100_000, proctor: 90, start: 10 };
/** So much longer than needed, where there is room. */
const SPARE_MINUTES = 10;
/** More variables than this are not tried in one program. */
const MOST_OPTIONS = 5_000;
const MOST_STARTS = 12;
/** Of the rooms that are supervised anyway, each looks at so many. */
const MOST_SUPERVISED = 3;
/** So many people are taken to share a room that is opened for them. */
const PER_ROOM = 6;

/**
 * Windows, rooms and proctors for everyone whose time does not fit: each as near to the common time as the others allow,
 * few rooms opened for them, starts shared. An integer program over the nearest windows of each; a plain way, one person
 * after the other, is worked out as well, and the cheaper of the two is taken, so that the program never makes it worse.
 * Blocks until it is done: call it in a worker.
 */
export async function planForAll(day: PlaceDay, seconds = 8): Promise<PlanForAll> {
	const plain = planPlainly(day);
	const better = await planByProgram(day, seconds);
	if (!better || costOf(day, better) >= costOf(day, plain)) return plain;
	return better;
}

/** Minutes moved, rooms opened and starts apart, as one number. */
export function costOf(day: PlaceDay, { places, left }: Pick<PlanForAll, 'places' | 'left'>): number {
	const byId = new Map(day.people.map((person) => [person.id, person]));
	const moved = places.reduce((sum, place) => sum + awayOf(byId.get(place.id)!, place.opens), 0);
	const opened = new Set(
		places.filter((place) => place.proctorId).map((place) => `${place.roomId} ${place.proctorId}`)
	);
	const starts = new Set(places.map((place) => `${place.roomId} ${place.opens}`));
	return left.length * COST.left + moved + opened.size * COST.proctor + starts.size * COST.start;
}

const awayOf = ({ common }: ToPlace, opens: number) => Math.abs(opens - common.opens) / MINUTE;

function slotsOf(day: PlaceDay, person: ToPlace) {
	return findSlots({
		needMinutes: person.minutes,
		around: person.common,
		busy: person.commitments,
		hours: day.hours,
		zone: day.zone,
		stepMinutes: day.stepMinutes,
		within: day.within,
		spareMinutes: SPARE_MINUTES
	});
}

/** One after the other, those who need most first; each takes what is cheapest then. */
export function planPlainly(day: PlaceDay): PlanForAll {
	const rooms = day.rooms.map((room) => ({ ...room, held: [...room.held] }));
	const proctors = day.proctors.map((proctor) => ({ ...proctor, busy: [...proctor.busy] }));
	const places: Place[] = [];
	const left: string[] = [];
	const order = [...day.people].sort((a, b) => Number(b.apart) - Number(a.apart) || b.minutes - a.minutes);
	for (const person of order) {
		const days = { rooms, proctors, roomId: person.roomId } as Days;
		const starts = new Set(places.map((place) => `${place.roomId} ${place.opens}`));
		let best: { place: Place; cost: number } | null = null;
		for (const slot of slotsOf(day, person)) {
			const away = Math.abs(slot.away) / MINUTE;
			// What comes later in the list is farther away, and can't be cheaper any more.
			if (best && away >= best.cost) break;
			const placed = placeFor(days, { from: slot.opens, to: slot.closes }, person.apart);
			if (!placed) continue;
			const isShared = starts.has(`${placed.roomId} ${slot.opens}`);
			const cost = away + (placed.proctorId ? COST.proctor : 0) + (isShared ? 0 : COST.start);
			if (!best || cost < best.cost)
				best = { cost, place: { id: person.id, opens: slot.opens, closes: slot.closes, ...placed } };
		}
		if (!best) {
			left.push(person.id);
			continue;
		}
		places.push(best.place);
		hold(rooms, proctors, best.place, person.apart);
	}
	return { places, left, isBest: false };
}

/** Somebody sits there from now on, and whoever has to come for it is there and nowhere else. */
function hold(rooms: RoomDay[], proctors: ProctorDay[], { roomId, proctorId, opens, closes }: Place, apart: boolean) {
	const room = rooms.find((one) => one.id === roomId)!;
	const span = { from: opens, to: closes };
	room.held.push({
		...span,
		title: 'placed',
		people: apart ? room.seats : 1,
		proctorIds: proctorId ? [proctorId] : []
	});
	if (proctorId) proctors.find((one) => one.id === proctorId)!.busy.push({ ...span, roomId });
}

/** One place that somebody could take. */
type Option = { person: ToPlace; place: Place; away: number };

/**
 * The same as an integer program: who takes which of their options, so that no seat is taken twice at any time. A room that
 * nobody supervises is paired beforehand with one proctor for the day, so that no proctor is in two rooms.
 */
async function planByProgram(day: PlaceDay, seconds: number): Promise<PlanForAll | null> {
	const options = day.people.flatMap((person, i) => optionsOf(day, person, i));
	if (options.length === 0) return null;
	const least: Terms = new Map();
	const binary: string[] = [];
	const perPerson = new Map<string, Terms>(day.people.map((person) => [person.id, new Map()]));
	const perStart = new Map<string, Terms>();
	const perRoom = new Map<string, Terms>();
	const perSeat = new Map<string, { terms: Terms; free: number }>();
	options.forEach((option, i) => {
		const variable = `x${i}`;
		const { person, place } = option;
		binary.push(variable);
		least.set(variable, option.away);
		perPerson.get(person.id)!.set(variable, 1);
		add(perStart, `${place.roomId} ${place.opens}`, variable);
		if (place.proctorId) add(perRoom, place.roomId, variable);
		const room = day.rooms.find((one) => one.id === place.roomId)!;
		const step = day.stepMinutes * MINUTE;
		for (let at = Math.floor(place.opens / step) * step; at < place.closes; at += step) {
			const tick = { from: at, to: at + step };
			const key = `${room.id} ${at}`;
			const seat = perSeat.get(key) ?? { terms: new Map(), free: room.seats - mostIn(room, tick) };
			// Whoever sits apart takes the whole room.
			seat.terms.set(variable, person.apart ? Math.max(1, seat.free) : 1);
			perSeat.set(key, seat);
		}
	});
	const constraints: Constraint[] = [];
	for (const [id, terms] of perPerson) {
		const out = `left${day.people.findIndex((person) => person.id === id)}`;
		least.set(out, COST.left);
		constraints.push({ terms: new Map([...terms, [out, 1]]), is: '=', than: 1 });
	}
	const onlyWith = (groups: Map<string, Terms>, name: string, cost: number) =>
		[...groups.values()].forEach((terms, i) => {
			const variable = `${name}${i}`;
			binary.push(variable);
			least.set(variable, cost);
			constraints.push({ terms: new Map([...terms, [variable, -terms.size]]), is: '<=', than: 0 });
		});
	onlyWith(perStart, 'start', COST.start);
	onlyWith(perRoom, 'room', COST.proctor);
	for (const { terms, free } of perSeat.values()) constraints.push({ terms, is: '<=', than: free });

	const solved = await solve({ least, constraints, binary }, seconds);
	if (!solved) return null;
	const places = options.filter((_, i) => solved.values(`x${i}`) > 0.5).map(({ place }) => place);
	const placed = new Set(places.map((place) => place.id));
	return {
		places,
		left: day.people.filter((person) => !placed.has(person.id)).map((person) => person.id),
		isBest: solved.isBest
	};
}

function add(groups: Map<string, Terms>, key: string, variable: string) {
	const terms = groups.get(key) ?? new Map();
	terms.set(variable, 1);
	groups.set(key, terms);
}

/**
 * The nearest windows, in rooms that are supervised then or have been paired with a proctor. Where many are supervised,
 * different people look at different ones.
 */
function optionsOf(day: PlaceDay, person: ToPlace, index: number): Option[] {
	const most = Math.max(8, Math.floor(MOST_OPTIONS / day.people.length));
	const pairs = pairsOf(day);
	const own = day.rooms.findIndex((room) => room.id === person.roomId);
	const first = own >= 0 ? own : index % day.rooms.length;
	const turned = [...day.rooms.slice(first), ...day.rooms.slice(0, first)];
	const options: Option[] = [];
	for (const slot of slotsOf(day, person).slice(0, MOST_STARTS)) {
		const span = { from: slot.opens, to: slot.closes };
		let supervised = 0;
		for (const room of turned) {
			if (options.length === most) return options;
			const isEmpty = !room.held.some((one) => one.people > 0 && overlap(one, span));
			if (person.apart ? !isEmpty : mostIn(room, span) >= room.seats) continue;
			const proctor = isSupervised(room, span) ? null : pairs.get(room.id);
			if (proctor === undefined || (proctor && !isFree(proctor, span, room.id))) continue;
			if (proctor === null && ++supervised > MOST_SUPERVISED) continue;
			const place = { id: person.id, opens: slot.opens, closes: slot.closes, roomId: room.id };
			options.push({ person, place: { ...place, proctorId: proctor?.id ?? null }, away: Math.abs(slot.away) / MINUTE });
		}
	}
	return options;
}

/** One proctor for each room that may be opened: who is free for longest goes where most can sit. */
function pairsOf({ rooms, proctors, within, people }: PlaceDay): Map<string, ProctorDay> {
	const busy = (spans: Span[]) =>
		spans.reduce((sum, one) => sum + Math.max(0, Math.min(one.to, within.to) - Math.max(one.from, within.from)), 0);
	const free = [...rooms].sort((a, b) => busy(a.held) - busy(b.held) || b.seats - a.seats);
	const ready = [...proctors].sort((a, b) => busy(a.busy) - busy(b.busy));
	const alone = people.filter((person) => person.apart).length;
	const count = Math.min(ready.length, 2 + alone + Math.ceil(people.length / PER_ROOM));
	return new Map(free.slice(0, count).map((room, i) => [room.id, ready[i]]));
}
