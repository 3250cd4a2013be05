import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { assignSeats, PLAIN_PLAN, seatName, seatOrder, usableSeats } from '.';

describe('seats', () => {
	it('are named row by row, with doubled letters past Z', () => {
		expect([0, 5, 6, 26 * 6, 27 * 6].map((i) => seatName(i, 6))).toEqual(['A1', 'A6', 'B1', 'AA1', 'BB1']);
	});

	it('out of use are not used; apart come last', () => {
		expect(usableSeats(2, 3, { outOfUse: ['A2'], apart: ['A1', 'B3'] })).toEqual(['A3', 'B1', 'B2', 'A1', 'B3']);
	});

	it('apart go first to those who are to sit apart', () => {
		const people = [{ apart: false }, { apart: true }, { apart: false }, { apart: true }, { apart: true }];
		expect(assignSeats(people, 2, 2, { outOfUse: [], apart: ['B1'] })).toEqual(['A1', 'B1', 'A2', 'B2', null]);
	});

	it('nobody shares a seat, nobody sits out of use, and nobody stands while a seat is free', () => {
		const seat = fc.nat(23).map((i) => seatName(i, 6));
		fc.assert(
			fc.property(
				fc.array(fc.boolean(), { maxLength: 40 }),
				fc.array(seat),
				fc.array(seat),
				(apart, outOfUse, kept) => {
					const given = assignSeats(
						apart.map((one) => ({ apart: one })),
						4,
						6,
						{ outOfUse, apart: kept }
					);
					const taken = given.filter((one) => one !== null);
					expect(new Set(taken).size).toBe(taken.length);
					expect(taken.some((one) => outOfUse.includes(one))).toBe(false);
					expect(taken.length).toBe(Math.min(apart.length, usableSeats(4, 6, { ...PLAIN_PLAN, outOfUse }).length));
				}
			)
		);
	});
});

describe('the order of seats', () => {
	it('is that of the room, also past row Z, and ends with whoever has none', () => {
		const names = Array.from({ length: 30 * 12 }, (_, index) => seatName(index, 12));
		expect(names.slice(0, 2)).toEqual(['A1', 'A2']);
		expect(names.at(-1)).toBe('DD12');
		const sorted = [null, ...names]
			.map((seat) => [seatOrder(seat), seat] as const)
			.sort(([a], [b]) => (a < b ? -1 : 1));
		expect(sorted.map(([, seat]) => seat)).toEqual([...names, null]);
	});
});
