import type { StaffMember } from '$core/access';
import { checkGrant, type Days, misfitInWords } from '$core/grants';
import { fail } from '$core/problem';
import type { Place, PlanForAll } from '$core/optimal';
import type { Query } from '../db';
import type { House } from '../house';
import { orTooLong } from '../thread';
import { askedOf } from './foresee';
import { gather, type Gathered, PLANNING } from './fit-day';

/** The search itself ends after eight seconds with the best that it has. */
const DEADLINE_MS = 40_000;

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

/** What these places would break, as it was gathered; by sitting, in words. */
export function checkIn(gathered: Gathered, places: Place[], now: number): Record<string, string[]> {
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
			message: `${unknown.length === 1 ? 'One of them was' : `${unknown.length} of them were`} given a window, or moved, while you looked.`,
			instead: 'Look at the list again and make a new proposal.'
		});
}
