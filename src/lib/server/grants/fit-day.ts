import { may, type StaffMember } from '$core/access';
import { type Called, type Days, misfitInWords, type Span } from '$core/grants';
import { fullName } from '$core/names';
import { fail } from '$core/problem';
import type { PlaceDay, ToPlace } from '$core/optimal';
import { instantFromLocal, localDate, localMidnightAfter, MINUTE } from '$core/time';
import type { Query } from '../db';
import { giveWay } from '../event-loop';
import { findSessions, placeOf } from '../session';
import { type Loaded, loadSittingsOf } from '../sitting';
import type { ThreadKind } from '../thread';
import { daysOf, siteDays } from './days';
import { askedOf, misfitsOf } from './foresee';
import type { PlanningTasks } from './planning-thread';

/** Where windows are worked out, beside the event loop. */
export const PLANNING: ThreadKind<PlanningTasks> = { entry: 'src/lib/server/grants/planning-thread.ts', memoryMb: 512 };

/** Windows begin at full quarters of an hour. */
export const STEP_MINUTES = 15;

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

export type Gathered = { fit: FitDay; placeDay: PlaceDay; loaded: Map<string, Loaded>; days: Map<string, Days> };

/** All that windows of one site's day are worked out from. */
export async function gather(
	db: Query,
	staff: StaffMember,
	siteId: string,
	day: string,
	now: number
): Promise<Gathered> {
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

/** Everyone whose time does not fit on that day. */
export async function fitDay(db: Query, staff: StaffMember, siteId: string, day: string, now: number): Promise<FitDay> {
	return (await gather(db, staff, siteId, day, now)).fit;
}
