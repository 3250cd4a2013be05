import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkGrant, type Days } from '../grants';
import { MINUTE } from '../time';
import {
	costOf,
	planForAll,
	planPlainly,
	type Place,
	type PlaceDay,
	type PlanForAll,
	type ToPlace
} from './plan-for-all';
import { runs } from '$core/testing/runs';

const at = (clock: string) => Date.parse(`2026-12-08T${clock}:00Z`);
const WITHIN = { from: at('08:00'), to: at('18:00') };
const person = (id: string, change: Partial<ToPlace> = {}): ToPlace => ({
	id,
	minutes: 100,
	common: { opens: at('09:00'), closes: at('10:30') },
	roomId: 'chart',
	commitments: [],
	apart: false,
	...change
});
const CHART = {
	id: 'chart',
	name: 'Chart Room',
	seats: 18,
	held: [{ from: at('09:00'), to: at('10:30'), title: 'Tides', people: 18, proctorIds: ['dunmore'] }]
};
const QUIET = { id: 'quiet', name: 'Quiet Room', seats: 4, held: [] };
const FINCH = { id: 'finch', name: 'Adela Finch', busy: [] };
const day = (change: Partial<PlaceDay> = {}): PlaceDay => ({
	people: [person('kemi')],
	rooms: [CHART, QUIET],
	proctors: [FINCH],
	hours: { opens: '08:00', closes: '18:00' },
	zone: 'Europe/London',
	within: WITHIN,
	stepMinutes: 15,
	...change
});

/** Everybody placed fits by `checkGrant`, with all the others of the plan in their places. */
function mustFit(given: PlaceDay, { places }: PlanForAll) {
	for (const place of places) {
		const one = given.people.find(({ id }) => id === place.id)!;
		const others = places.filter(({ id }) => id !== place.id);
		const isApart = (other: Place) => given.people.find(({ id }) => id === other.id)!.apart;
		const days: Days = {
			now: given.within.from,
			zone: given.zone,
			common: one.common,
			commitments: one.commitments,
			hours: given.hours,
			rooms: given.rooms.map((room) => ({
				...room,
				held: [
					...room.held,
					...others
						.filter((other) => other.roomId === room.id)
						.map((other) => ({
							from: other.opens,
							to: other.closes,
							title: 'another',
							people: isApart(other) ? room.seats : 1,
							proctorIds: other.proctorId ? [other.proctorId] : []
						}))
				]
			})),
			proctors: given.proctors.map((proctor) => ({
				...proctor,
				busy: [
					...proctor.busy,
					...others
						.filter((other) => other.proctorId === proctor.id)
						.map((other) => ({ from: other.opens, to: other.closes, roomId: other.roomId }))
				]
			})),
			roomId: one.roomId,
			endsAt: null,
			answersShownAt: null
		};
		const found = checkGrant(days, {
			window: place,
			minutes: one.minutes,
			place,
			apart: one.apart,
			cuts: true,
			startsAtOpening: true,
			lastEntry: null
		});
		expect({ place, found }).toEqual({ place, found: [] });
	}
}

describe('a plan for everyone whose time does not fit', () => {
	it('puts somebody with 100 minutes and a class at 10:30 into the quiet room at 08:45', async () => {
		const kemi = person('kemi', { commitments: [{ from: at('10:30'), to: at('12:00'), title: 'Ship Handling' }] });
		const given = day({ people: [kemi] });
		const plan = await planForAll(given);
		expect(plan).toMatchObject({ left: [], places: [{ opens: at('08:45'), roomId: 'quiet', proctorId: 'finch' }] });
		mustFit(given, plan);
	});

	it('shares a start and a proctor rather than open two rooms', async () => {
		const people = ['a', 'b', 'c', 'd'].map((id) => person(id));
		const rooms = [CHART, QUIET, { ...QUIET, id: 'radio', name: 'Radio Room' }];
		const given = day({ people, rooms, proctors: [FINCH, { ...FINCH, id: 'hale', name: 'Hale' }] });
		const plan = await planForAll(given);
		mustFit(given, plan);
		expect(plan.left).toEqual([]);
		expect(new Set(plan.places.map((place) => place.roomId)).size).toBe(1);
		expect(new Set(plan.places.map((place) => place.opens)).size).toBe(1);
	});

	it('leaves out only those for whom there is nothing', async () => {
		const busy = person('busy', { commitments: [{ from: at('07:00'), to: at('19:00'), title: 'At sea' }] });
		const plan = await planForAll(day({ people: [busy, person('kemi')] }));
		expect(plan.left).toEqual(['busy']);
		expect(plan.places.map((place) => place.id)).toEqual(['kemi']);
	});

	const anyTime = fc.integer({ min: 32, max: 68 }).map((quarters) => at('00:00') + quarters * 15 * MINUTE);
	const span = fc
		.tuple(anyTime, fc.integer({ min: 1, max: 8 }))
		.map(([from, quarters]) => ({ from, to: from + quarters * 15 * MINUTE }));
	const anyDay = fc
		.record({
			people: fc.array(
				fc.record({
					minutes: fc.integer({ min: 20, max: 180 }),
					opens: anyTime,
					busy: fc.array(span, { maxLength: 2 }),
					apart: fc.boolean()
				}),
				{ minLength: 1, maxLength: 6 }
			),
			chart: fc.array(fc.tuple(span, fc.nat(3), fc.boolean()), { maxLength: 3 }),
			elsewhere: fc.array(span, { maxLength: 2 }),
			seats: fc.integer({ min: 1, max: 4 })
		})
		.map(({ people, chart, elsewhere, seats }) =>
			day({
				people: people.map((one, i) =>
					person(`p${i}`, {
						minutes: one.minutes,
						common: { opens: one.opens, closes: null },
						commitments: one.busy.map((busy) => ({ ...busy, title: 'Class' })),
						apart: one.apart
					})
				),
				rooms: [
					{
						...CHART,
						seats: 4,
						held: chart.map(([held, count, has]) => ({
							...held,
							title: 'Other',
							people: count,
							proctorIds: has ? ['x'] : []
						}))
					},
					{ ...QUIET, seats }
				],
				proctors: [{ ...FINCH, busy: elsewhere.map((busy) => ({ ...busy, roomId: 'radio' })) }]
			})
		);

	it('property: seats, rooms and proctors are never taken twice, nobody is lost, and it costs no more than the plain way', async () => {
		await fc.assert(
			fc.asyncProperty(anyDay, async (given) => {
				const [plan, plain] = [await planForAll(given, 2), planPlainly(given)];
				mustFit(given, plan);
				mustFit(given, plain);
				expect([...plan.left, ...plan.places.map((place) => place.id)].sort()).toEqual(
					given.people.map(({ id }) => id).sort()
				);
				expect(costOf(given, plan)).toBeLessThanOrEqual(costOf(given, plain));
			}),
			{ numRuns: runs(25) }
		);
	}, 60_000);

	it('is as good as trying everything, where that can be tried', async () => {
		// Two people, one seat in the quiet room, whole hours: all pairs of starts by hand.
		const two = ['a', 'b'].map((id) => person(id, { minutes: 50, common: { opens: at('10:00'), closes: null } }));
		const given = day({ people: two, rooms: [{ ...QUIET, seats: 1 }], stepMinutes: 60 });
		const plan = await planForAll(given);
		const starts = Array.from({ length: 10 }, (_, i) => at('08:00') + i * 60 * MINUTE);
		const costs = starts.flatMap((a) =>
			starts
				.filter((b) => Math.abs(a - b) >= 60 * MINUTE)
				.map((b) => Math.abs(a - at('10:00')) / MINUTE + Math.abs(b - at('10:00')) / MINUTE + 90 + 2 * 10)
		);
		expect(costOf(given, plan)).toBe(Math.min(...costs));
	});
});
