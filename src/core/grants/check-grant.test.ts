import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { localTime, MINUTE } from '../time';
import { checkGrant, findSlots, misfitInWords, proposeSlots, type Asked, type Days, type RoomDay } from '.';
import { runs } from '$core/testing/runs';

const ZONE = 'Europe/London';
const at = (clock: string) => Date.parse(`2026-12-08T${clock}:00Z`);
const DAY = { from: at('00:00'), to: at('00:00') + 24 * 60 * MINUTE };
const room = (change: Partial<RoomDay> = {}): RoomDay => ({
	id: 'chart',
	name: 'Chart Room',
	seats: 10,
	held: [{ from: at('10:00'), to: at('11:00'), title: 'Tides', people: 9, proctorIds: ['dunmore'] }],
	...change
});
const days = (change: Partial<Days> = {}): Days => ({
	now: at('07:00'),
	zone: ZONE,
	common: { opens: at('10:00'), closes: at('11:00') },
	commitments: [],
	hours: { opens: '08:00', closes: '18:00' },
	rooms: [room()],
	proctors: [{ id: 'finch', name: 'Adela Finch', busy: [] }],
	roomId: 'chart',
	endsAt: null,
	answersShownAt: null,
	...change
});
const asked = (change: Partial<Asked> = {}): Asked => ({
	window: { opens: at('10:00'), closes: at('11:00') },
	minutes: 50,
	place: null,
	apart: false,
	cuts: true,
	startsAtOpening: true,
	lastEntry: null,
	...change
});
const kinds = (...given: Parameters<typeof checkGrant>) => checkGrant(...given).map((misfit) => misfit.kind);
const clockOf = (slot: { opens: number; closes: number }) =>
	`${localTime(slot.opens, ZONE)}-${localTime(slot.closes, ZONE)}`;

describe('what does not fit, before it is given', () => {
	it('is nothing where time, room and proctor are there', () => {
		expect(checkGrant(days(), asked())).toEqual([]);
	});

	it('is told with its length: 50 minutes at time and a half from 10:00 to 11:00, class at 11:00', () => {
		const ship = { from: at('11:00'), to: at('12:00'), title: 'Ship Handling' };
		const found = checkGrant(days({ commitments: [ship] }), asked({ minutes: 75 }));
		expect(found.map((misfit) => misfitInWords(misfit, ZONE))).toEqual([
			'The window 10:00 to 11:00 is 15 min too short: it cuts the time granted.',
			'15 min into Ship Handling at 11:00.'
		]);
	});

	it('is no window where those who began may finish, nor a class in a long window that leaves time enough', () => {
		const watched = room({
			held: [{ from: at('08:00'), to: at('20:00'), title: 'Tides', people: 1, proctorIds: ['x'] }]
		});
		expect(checkGrant(days({ rooms: [watched] }), asked({ minutes: 75, cuts: false }))).toEqual([]);
		const lecture = { from: at('09:00'), to: at('12:00'), title: 'Lecture' };
		const long = { window: { opens: at('08:00'), closes: at('17:00') }, minutes: 75, startsAtOpening: false };
		expect(checkGrant(days({ rooms: [watched], commitments: [lecture] }), asked(long))).toEqual([]);
		// With an end of entry at 08:15 nobody comes after the lecture.
		expect(
			kinds(days({ rooms: [watched], commitments: [lecture] }), asked({ ...long, lastEntry: at('08:15') }))
		).toEqual(['commitment']);
	});

	it('is a room that is full, taken, closed or without anybody who supervises, and a proctor who is elsewhere', () => {
		expect(kinds(days({ rooms: [room({ seats: 9 })] }), asked())).toEqual(['room_full']);
		expect(kinds(days(), asked({ apart: true }))).toEqual(['room_taken']);
		expect(kinds(days(), asked({ window: { opens: at('17:30'), closes: at('18:30') } }))).toEqual([
			'after_hours',
			'no_proctor'
		]);
		expect(kinds(days(), asked({ window: { opens: at('07:30'), closes: at('09:00') } }))).toContain('before_hours');
		const busy = { id: 'finch', name: 'Adela Finch', busy: [{ from: at('12:30'), to: at('13:00'), roomId: 'radio' }] };
		const window = { opens: at('12:00'), closes: at('13:00') };
		const place = { roomId: 'chart', proctorId: 'finch' };
		expect(kinds(days({ proctors: [busy] }), asked({ window, place }))).toEqual(['proctor_busy']);
		expect(kinds(days(), asked({ window, place }))).toEqual([]);
	});

	it('is a day that is over, an administration that is, and answers that others have seen', () => {
		expect(kinds(days({ now: at('12:00') }), asked())).toEqual(['past']);
		expect(kinds(days({ endsAt: at('10:30'), answersShownAt: at('10:20') }), asked())).toEqual([
			'after_days',
			'answers_shown'
		]);
		const night = { window: { opens: at('23:30'), closes: at('23:30') + 60 * MINUTE } };
		expect(kinds(days({ hours: null }), asked(night))).toContain('over_midnight');
	});
});

describe('windows that do', () => {
	const class11 = { from: at('11:00'), to: at('12:00'), title: 'Ship Handling' };
	const search = (stepMinutes: number) =>
		findSlots({
			needMinutes: 75,
			around: { opens: at('10:00'), closes: at('11:00') },
			busy: [class11],
			hours: { opens: '08:00', closes: '18:00' },
			zone: ZONE,
			stepMinutes,
			within: DAY
		});

	// A check value from common practice: a 50-minute paper at time and a half, a class at 11:00.
	it('begin at 09:30 in half-hour steps and at 09:45 in quarters, both until 11:00', () => {
		expect(clockOf(search(30)[0])).toBe('09:30-11:00');
		expect(clockOf(search(15)[0])).toBe('09:45-11:00');
	});

	it('come nearest first, and none of those that are possible is left out', () => {
		const found = search(15);
		expect(found.map((slot) => Math.abs(slot.away))).toEqual(
			[...found.map((slot) => Math.abs(slot.away))].sort((a, b) => a - b)
		);
		// By hand: from 08:00 to 09:45, and from 12:00 to 16:45.
		expect(found.map((slot) => localTime(slot.opens, ZONE)).sort()).toEqual(
			Array.from(
				{ length: 96 },
				(_, i) => `${String(Math.floor(i / 4)).padStart(2, '0')}:${String((i % 4) * 15).padStart(2, '0')}`
			).filter((clock) => (clock >= '08:00' && clock <= '09:45') || (clock >= '12:00' && clock <= '16:45'))
		);
	});

	it('are there on the day on which the clocks go back, and only once an hour', () => {
		const from = Date.parse('2026-10-24T23:00:00Z');
		const found = findSlots({
			needMinutes: 60,
			around: { opens: from, closes: null },
			busy: [],
			hours: null,
			zone: ZONE,
			stepMinutes: 60,
			within: { from, to: from + 25 * 60 * MINUTE }
		});
		expect(found).toHaveLength(25);
		expect(new Set(found.map((slot) => slot.opens)).size).toBe(25);
	});

	it('leave a weekend out where that is wished', () => {
		const friday = Date.parse('2026-12-11T00:00:00Z');
		const found = findSlots({
			needMinutes: 60,
			around: { opens: friday, closes: null },
			busy: [],
			hours: { opens: '10:00', closes: '11:00' },
			zone: ZONE,
			stepMinutes: 60,
			within: { from: friday, to: friday + 4 * 24 * 60 * MINUTE },
			weekdays: true
		});
		expect(found.map((slot) => new Date(slot.opens).getUTCDate())).toEqual([11, 14]);
	});

	const anyTime = fc.integer({ min: 7 * 12, max: 19 * 12 }).map((fives) => at('00:00') + fives * 5 * MINUTE);
	const span = fc
		.tuple(anyTime, fc.integer({ min: 5, max: 180 }))
		.map(([from, minutes]) => ({ from, to: from + minutes * MINUTE }));
	const someDays = fc.record({
		commitments: fc.array(span, { maxLength: 4 }),
		held: fc.array(fc.tuple(span, fc.nat(6), fc.boolean()), { maxLength: 4 }),
		quiet: fc.array(fc.tuple(span, fc.nat(2), fc.boolean()), { maxLength: 3 }),
		elsewhere: fc.array(span, { maxLength: 3 }),
		now: anyTime,
		minutes: fc.integer({ min: 10, max: 200 }),
		apart: fc.boolean()
	});
	const built = (given: typeof someDays extends fc.Arbitrary<infer T> ? T : never): Days =>
		days({
			now: given.now,
			commitments: given.commitments.map((one) => ({ ...one, title: 'Class' })),
			rooms: [
				room({
					seats: 6,
					held: given.held.map(([one, people, has]) => ({
						...one,
						title: 'Other',
						people,
						proctorIds: has ? ['x'] : []
					}))
				}),
				room({
					id: 'quiet',
					name: 'Quiet Room',
					seats: 2,
					held: given.quiet.map(([one, people, has]) => ({
						...one,
						title: 'Other',
						people,
						proctorIds: has ? ['y'] : []
					}))
				})
			],
			proctors: [
				{ id: 'finch', name: 'Adela Finch', busy: given.elsewhere.map((one) => ({ ...one, roomId: 'radio' })) }
			]
		});

	it('property: what is proposed fits, and is in no commitment, past or closed room', () => {
		fc.assert(
			fc.property(someDays, (given) => {
				const all = built(given);
				const { minutes, apart } = given;
				const found = proposeSlots(all, { minutes, apart, cuts: true, stepMinutes: 5, within: DAY, most: 4 });
				for (const one of found) {
					expect(one.opens).toBeGreaterThanOrEqual(all.now);
					expect(one.closes - one.opens).toBeGreaterThanOrEqual(minutes * MINUTE);
					const place = { roomId: one.room.id, proctorId: one.proctor?.id ?? null };
					expect(checkGrant(all, asked({ window: one, minutes, apart, place }))).toEqual([]);
				}
			})
		);
	});

	it('property: where nothing is proposed, trying every five minutes in every room finds nothing either', () => {
		fc.assert(
			fc.property(someDays, (given) => {
				const all = built(given);
				const { minutes, apart } = given;
				if (proposeSlots(all, { minutes, apart, cuts: true, stepMinutes: 5, within: DAY, most: 1 }).length > 0) return;
				for (let opens = at('08:00'); opens + minutes * MINUTE <= at('18:00'); opens += 5 * MINUTE) {
					if (opens < all.now) continue;
					for (const { id: roomId } of all.rooms)
						for (const proctorId of [null, 'finch']) {
							const window = { opens, closes: opens + minutes * MINUTE };
							expect(checkGrant(all, asked({ window, minutes, apart, place: { roomId, proctorId } }))).not.toEqual([]);
						}
				}
			}),
			{ numRuns: runs(40) }
		);
	});
});
