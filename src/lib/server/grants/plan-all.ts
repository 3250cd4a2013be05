import { may, type StaffMember } from '$core/access';
import { checkGrant, misfitInWords, type Called, type Days, type Span } from '$core/grants';
import { fullName } from '$core/names';
import { fail } from '$core/problem';
import type { Place, PlaceDay, PlanForAll, ToPlace } from '$core/optimal';
import type { Actor } from '$core/sitting';
import { instantFromLocal, localDate, localMidnightAfter, MINUTE } from '$core/time';
import type { Query } from '../db';
import { giveWay } from '../event-loop';
import type { Acting, House } from '../house';
import { postDue } from '../mail';
import { doorOpensAt, findSession, findSessions, placeOf } from '../session';
import { loadSittingsOf, type Loaded } from '../sitting';
import { orTooLong, type ThreadKind } from '../thread';
import { daysOf, siteDays } from './days';
import { askedOf, misfitsOf } from './foresee';
import { giveGrants, withdrawGrants } from './give';
import type { PlanningTasks } from './planning-thread';

const PLANNING: ThreadKind<PlanningTasks> = { entry: 'src/lib/server/grants/planning-thread.ts', memoryMb: 512 };
/** The search itself ends after eight seconds with the best that it has. */
const DEADLINE_MS = 40_000;
const STEP_MINUTES = 15;

/** Somebody whose time does not fit, as a list shows them. */
export type Unfitting = {
	sittingId: string;
	name: string;
	number: string;
	session: { id: string; name: string; room: string };
	minutes: number;
	base: { opens: number; closes: number | null };
	commitments: (Span & { title: string })[];
	misfits: string[];
};

/** Everyone of a site's day whose time does not fit and who can still be given a window. */
export type FitDay = {
	day: string;
	zone: string;
	within: Span;
	hours: Days['hours'];
	people: Unfitting[];
	rooms: (Called & { seats: number })[];
	proctors: Called[];
};

type Gathered = { fit: FitDay; placeDay: PlaceDay; loaded: Map<string, Loaded>; days: Map<string, Days> };

async function gather(db: Query, staff: StaffMember, siteId: string, day: string, now: number): Promise<Gathered> {
	const site = await db('site').where({ id: siteId }).first('zone');
	const noon = site && instantFromLocal(day, '12:00', site.zone);
	if (!noon?.ok) fail('not_found');
	const zone: string = site.zone;
	const until = localMidnightAfter(noon.at, zone);
	const within = { from: Math.max(localMidnightAfter(noon.at - 24 * 60 * MINUTE, zone), now), to: until };
	const sessions = (
		await findSessions(db, (query) =>
			query
				.where({ 'room.site_id': siteId, ended_at: null })
				.whereBetween('session.opens', [until - 25 * 60 * MINUTE, until])
		)
	).filter((session) => may(staff, 'grant', placeOf(session)) && localDate(session.window.opens, zone) === day);
	const places = await siteDays(db, siteId, { from: until - 25 * 60 * MINUTE, to: until });
	const all = await loadSittingsOf(
		db,
		sessions.map((session) => session.id),
		now
	);
	const loaded = new Map<string, Loaded>();
	const days = new Map<string, Days>();
	const people: (Unfitting & ToPlace)[] = [];
	for (const [i, one] of all.entries()) {
		if (one.merge.reasons.length === 0 || one.sitting.state !== 'expected') continue;
		if (i % 50 === 49) await giveWay();
		const theirs = await daysOf(db, one, places, within, now);
		const misfits = misfitsOf(one, theirs);
		const { minutes } = askedOf(one, now);
		if (misfits.length === 0 || minutes === null) continue;
		loaded.set(one.sitting.id, one);
		days.set(one.sitting.id, theirs);
		people.push({
			id: one.sitting.id,
			sittingId: one.sitting.id,
			name: fullName(one.candidate),
			number: one.candidate.number,
			session: { id: one.session.id, name: one.session.name, room: one.session.room.name },
			minutes,
			base: one.session.window,
			common: one.session.window,
			roomId: one.session.room.id,
			commitments: theirs.commitments,
			misfits: misfits.map((misfit) => misfitInWords(misfit, zone)),
			apart: one.merge.separateRoom
		});
	}
	people.sort((a, b) => a.base.opens - b.base.opens || a.name.localeCompare(b.name));
	const placed = new Set(people.map((person) => person.id));
	return {
		loaded,
		days,
		fit: {
			day,
			zone,
			within: { from: until - 24 * 60 * MINUTE, to: until },
			hours: places.hours,
			people: people.map(({ id: _id, common: _common, roomId: _room, apart: _apart, ...shown }) => shown),
			rooms: places.rooms.map(({ id, name, seats }) => ({ id, name, seats })),
			proctors: places.proctors.map(({ id, name }) => ({ id, name }))
		},
		placeDay: {
			people: people.map(({ id, minutes, common, roomId, commitments, apart }) => ({
				id,
				minutes,
				common,
				roomId,
				commitments,
				apart
			})),
			rooms: withoutPlaced(places.rooms, [...loaded.values()], placed),
			proctors: places.proctors,
			hours: places.hours,
			zone,
			within,
			stepMinutes: STEP_MINUTES
		}
	};
}

/** The rooms with those left out who are to be placed: they free the seats that they have now. */
function withoutPlaced(rooms: PlaceDay['rooms'], loaded: Loaded[], placed: Set<string>): PlaceDay['rooms'] {
	const leaving = loaded.filter((one) => placed.has(one.sitting.id));
	return rooms.map((room) => ({
		...room,
		held: room.held.flatMap((held) => {
			const { sessionId, candidateId } = held as typeof held & { sessionId: string; candidateId: string | null };
			const ofSession = leaving.filter((one) => one.session.id === sessionId);
			if (candidateId !== null) return ofSession.some((one) => one.candidate.id === candidateId) ? [] : [held];
			return [{ ...held, people: held.people - ofSession.filter((one) => one.merge.ownWindow === null).length }];
		})
	}));
}

export async function fitDay(db: Query, staff: StaffMember, siteId: string, day: string, now: number): Promise<FitDay> {
	return (await gather(db, staff, siteId, day, now)).fit;
}

export type Proposed = { places: Place[]; left: string[]; isBest: boolean };

/**
 * Proposes windows, rooms and proctors for all of them, in a thread of its own. Nothing is changed.
 * @throws ProblemError when it takes too long
 */
export async function proposeForAll(
	otium: Pick<House, 'db' | 'threads' | 'now'>,
	staff: StaffMember,
	siteId: string,
	day: string
): Promise<Proposed> {
	const { placeDay } = await gather(otium.db, staff, siteId, day, otium.now());
	if (placeDay.people.length === 0) return { places: [], left: [], isBest: true };
	const plan = await orTooLong<PlanForAll, null>(
		otium.threads.run(PLANNING, 'place', placeDay, DEADLINE_MS),
		() => null
	);
	if (!plan)
		fail('not_taken', {
			message: 'This took too long.',
			instead: 'Give windows to some of them by hand, then try again.'
		});
	return { places: plan.places, left: plan.left, isBest: plan.isBest };
}

/**
 * What does not fit of a plan that was changed by hand: by person, a sentence each, everybody else in their places.
 * @throws ProblemError when somebody is no longer among those whose time does not fit
 */
export async function checkPlaces(
	db: Query,
	staff: StaffMember,
	siteId: string,
	day: string,
	places: Place[],
	now: number
): Promise<Record<string, string[]>> {
	return checkIn(await gather(db, staff, siteId, day, now), places, now);
}

function checkIn(gathered: Gathered, places: Place[], now: number): Record<string, string[]> {
	mustKnow(gathered, places);
	const { placeDay, fit, days, loaded } = gathered;
	return Object.fromEntries(
		places.map((place) => {
			const others = places.filter((other) => other.id !== place.id);
			const held = (roomId: string) =>
				others
					.filter((other) => other.roomId === roomId)
					.map((other) => ({
						from: other.opens,
						to: other.closes,
						title: fit.people.find((person) => person.sittingId === other.id)!.name,
						people: 1,
						proctorIds: other.proctorId ? [other.proctorId] : []
					}));
			const theirs: Days = {
				...days.get(place.id)!,
				rooms: placeDay.rooms.map((room) => ({ ...room, held: [...room.held, ...held(room.id)] })),
				proctors: placeDay.proctors.map((proctor) => ({
					...proctor,
					busy: [
						...proctor.busy,
						...others
							.filter((other) => other.proctorId === proctor.id)
							.map((other) => ({ from: other.opens, to: other.closes, roomId: other.roomId }))
					]
				}))
			};
			const asked = { ...askedOf(loaded.get(place.id)!, now), window: place, place, cuts: true, startsAtOpening: true };
			return [place.id, checkGrant(theirs, asked).map((misfit) => misfitInWords(misfit, fit.zone))];
		})
	);
}

function mustKnow({ loaded, placeDay }: Gathered, places: Place[]) {
	const unknown = places.filter(
		(place) =>
			!loaded.has(place.id) ||
			!placeDay.rooms.some((room) => room.id === place.roomId) ||
			(place.proctorId !== null && !placeDay.proctors.some((proctor) => proctor.id === place.proctorId))
	);
	if (unknown.length > 0)
		fail('not_taken', {
			message: `${unknown.length === 1 ? 'One of them was' : `${unknown.length} of them were`} given a window, or moved, meanwhile.`,
			instead: 'Look at the list again and make a new proposal.'
		});
}

export type Applied = { given: number; mails: number };

/**
 * Gives everybody of a plan their window, all or nobody, and tells those concerned by mail.
 * @param id the asker's own id for it: what is applied can be undone as a whole by it
 */
export async function applyPlaces(
	otium: Acting,
	staff: StaffMember,
	by: Actor,
	asked: { id: string; siteId: string; day: string; places: Place[]; reason: string; tell: boolean },
	origin: string
): Promise<Applied> {
	const now = otium.now();
	const known = await otium.db('grant_given').where({ batch: asked.id }).first('id');
	if (known) return { given: asked.places.length, mails: 0 };
	const gathered = await gather(otium.db, staff, asked.siteId, asked.day, now);
	const wrong = checkIn(gathered, asked.places, now);
	const [bad] = Object.entries(wrong).filter(([, misfits]) => misfits.length > 0);
	if (bad) {
		const { name } = gathered.fit.people.find((person) => person.sittingId === bad[0])!;
		fail('not_taken', { message: `${name}: ${bad[1][0]}`, instead: 'Move them, or leave them out.' });
	}
	const { rooms, proctors } = gathered.fit;
	await giveGrants(
		otium,
		by,
		asked.places.map((place) => {
			const one = gathered.loaded.get(place.id)!;
			const room = rooms.find(({ id }) => id === place.roomId)!;
			const proctor = proctors.find(({ id }) => id === place.proctorId);
			const isElsewhere = place.roomId !== one.session.room.id;
			return {
				id: `${asked.id}:${place.id}`,
				grant: {
					candidateId: one.candidate.id,
					scope: { kind: 'session', id: one.session.id },
					body: {
						kind: 'own_window',
						opens: place.opens,
						closes: place.closes,
						...(isElsewhere && { room: { id: room.id, name: room.name } }),
						...(proctor && { proctor: { id: proctor.id, name: proctor.name } })
					},
					reason: asked.reason,
					givenBy: staff.id,
					givenAt: now,
					batch: asked.id
				}
			};
		})
	);
	const people = asked.places.map((place) => gathered.loaded.get(place.id)!);
	const mails = asked.tell ? await tellPeople(otium, by, people, origin) : 0;
	return { given: asked.places.length, mails };
}

/** Tells candidates what has changed for them, and proctors that they have somebody to supervise. */
async function tellPeople(otium: Acting, by: Actor, people: Loaded[], origin: string): Promise<number> {
	let posted = 0;
	for (const id of new Set(people.map((one) => one.session.id))) {
		const session = (await findSession(otium.db, id))!;
		const addresses: string[] = await otium
			.db('candidate')
			.whereIn(
				'id',
				people.filter((one) => one.session.id === id).map((one) => one.candidate.id)
			)
			.whereNotNull('email')
			.pluck('email');
		posted += await postDue(otium, by, session, 'candidate', origin, ({ address }) => addresses.includes(address!));
		posted += await postDue(otium, by, session, 'proctor', origin);
	}
	return posted;
}

/**
 * Takes a whole plan back, as long as no door of these windows has opened.
 * @throws ProblemError when somebody could be at the door already
 */
export async function undoPlaces(otium: Acting, staff: StaffMember, by: Actor, batch: string): Promise<number> {
	const rows: { id: string; opens: number; scope_id: string }[] = await otium
		.db('grant_given')
		.where({ batch, kind: 'own_window', withdrawn_at: null })
		.select('id', 'opens', 'scope_id');
	if (rows.length === 0) fail('already', { message: 'This plan was taken back already.' });
	for (const id of new Set(rows.map((row) => row.scope_id))) {
		const session = await findSession(otium.db, id);
		if (!session || !may(staff, 'grant', placeOf(session))) fail('not_yours');
		const lead = session.window.opens - doorOpensAt(session);
		const first = Math.min(...rows.filter((row) => row.scope_id === id).map((row) => row.opens));
		if (otium.now() >= first - lead)
			fail('not_taken', {
				message: 'The door of one of these windows is open already.',
				instead: 'Withdraw the windows one by one, of those who have not come.'
			});
	}
	return withdrawGrants(
		otium,
		by,
		rows.map((row) => row.id)
	);
}
