import { may, type StaffMember } from '$core/access';
import { fail } from '$core/problem';
import type { Place } from '$core/optimal';
import type { Actor } from '$core/sitting';
import type { Acting } from '../house';
import { postDue } from '../mail';
import { doorOpensAt, findSession, placeOf } from '../session';
import type { Loaded } from '../sitting';
import { giveGrants, withdrawGrants } from './give';
import { gather } from './fit-day';
import { checkIn } from './plan-all';

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
