import { describe, expect, it } from 'vitest';
import { MINUTE } from '../time';
import { apartFromRoom, idleSince, lateBy, progressOf, type SeatView } from '.';

const NOW = Date.parse('2026-12-08T09:30:00Z');
const RULES = { questions: 20, limitMinutes: 60, opens: NOW - 30 * MINUTE };
/** Somebody thirty minutes into sixty. */
const at = (id: string, change: Partial<SeatView> = {}) =>
	({
		id,
		state: 'working',
		line: { up: true, since: 0 },
		begun: true,
		movedOn: false,
		standing: false,
		answered: 10,
		arrivedAt: NOW - 31 * MINUTE,
		beganAt: NOW - 30 * MINUTE,
		since: NOW - 30 * MINUTE,
		lastAnswerAt: NOW - MINUTE,
		allotted: 60 * MINUTE,
		remaining: 30 * MINUTE,
		reckonedAt: NOW,
		deadline: NOW + 30 * MINUTE,
		ownWindow: null,
		...change
	}) as SeatView;

describe('idle', () => {
	const since = (minutes: number, change: Partial<SeatView> = {}, rules = RULES) =>
		idleSince(at('a', { lastAnswerAt: NOW - minutes * MINUTE, ...change }), rules, NOW);

	it('is no answer for twice what the paper leaves for a question, and for three minutes at least', () => {
		expect([since(5.9), since(6.1)]).toEqual([null, NOW - 6.1 * MINUTE]);
		const quick = { ...RULES, questions: 60 };
		expect([since(2.9, {}, quick), since(3.1, {}, quick)]).toEqual([null, NOW - 3.1 * MINUTE]);
		const endless = { ...RULES, limitMinutes: null as never };
		expect([since(2.9, {}, endless), since(3.1, {}, endless)]).toEqual([null, NOW - 3.1 * MINUTE]);
	});

	it('is nobody who need not answer: all done, on hold, with a clock that stands, or without a line', () => {
		expect(since(20, { answered: 20 })).toBeNull();
		expect(since(20, { state: 'on_hold' })).toBeNull();
		expect(since(20, { standing: true })).toBeNull();
		expect(since(20, { line: { up: false, since: NOW } })).toBeNull();
		expect(since(20, { since: NOW - MINUTE })).toBeNull();
	});
});

describe('far behind and far ahead', () => {
	const room = (...answered: number[]) => answered.map((n, i) => at(`s${i}`, { answered: n }));
	const of = (seats: SeatView[]) => Object.fromEntries(apartFromRoom(seats, RULES, NOW));

	it('is less than half, and more than twice, as fast as the middle of the room', () => {
		expect(of(room(4, 8, 9, 10, 17))).toEqual({ s0: 'behind' });
		expect(of(room(2, 2, 2, 3, 5))).toEqual({ s4: 'ahead' });
	});

	it('counts everybody in their own time: half as far with double the time is as fast as the others', () => {
		const double = at('d', { answered: 5, allotted: 120 * MINUTE, remaining: 90 * MINUTE });
		expect(of([...room(10, 10, 10, 10), double])).toEqual({});
	});

	it('says nothing of few, of the first fifth of the time, or where there is no limit', () => {
		expect(of(room(1, 10, 10, 10))).toEqual({});
		expect(of(room(1, 10, 10, 10, 10).map((one) => ({ ...one, remaining: 50 * MINUTE })))).toEqual({});
		expect(of(room(1, 10, 10, 10, 10).map((one) => ({ ...one, remaining: null, allotted: null })))).toEqual({});
	});
});

it('of several things the first is told: past their time, idle, late, apart from the room', () => {
	const seats = [
		at('past', { deadline: NOW - 1, remaining: 0, lastAnswerAt: 0 }),
		at('idle', { lastAnswerAt: NOW - 20 * MINUTE, answered: 1 }),
		at('late', { state: 'at_door', begun: false, beganAt: null, arrivedAt: NOW - 10 * MINUTE }),
		at('behind', { answered: 1 }),
		...[10, 10, 10, 10, 10].map((answered, i) => at(`s${i}`, { answered }))
	];
	expect(Object.fromEntries(progressOf(seats, RULES, NOW))).toEqual({
		past: 'past_time',
		idle: 'idle',
		late: 'late',
		behind: 'behind'
	});
	expect(lateBy(seats[2], RULES.opens)).toBe(20 * MINUTE);
	expect(lateBy(at('own', { arrivedAt: NOW, ownWindow: { opens: NOW - MINUTE, closes: null } }), RULES.opens)).toBe(
		MINUTE
	);
});
