import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { decide, newSitting, SITTING_STATES, type CommandBody, type Sitting, type SittingState } from '../sitting';
import { WILLING } from '../sitting/willing';
import { MINUTE } from '../time';
import {
	changedSeats,
	endedInWords,
	needCounts,
	needsYou,
	offers,
	reach,
	seatsOf,
	remainingNow,
	roomReady,
	stageInWords,
	TALLY_ORDER,
	tallyOf,
	timesInWords,
	type RoomHead,
	type SeatView
} from '.';

const NOW = 1_000_000_000;
let count = 0;
const seat = (state: SittingState, change: Partial<SeatView> = {}): SeatView => ({
	id: `s${count++}`,
	number: `DO-${count}`,
	name: 'Cecily Moor',
	seat: 'A1',
	elsewhere: false,
	state,
	heldFrom: null,
	onBreak: false,
	heldBySystem: false,
	since: NOW - MINUTE,
	reason: null,
	line: { up: true, since: NOW - MINUTE },
	device: 'Laptop',
	otherDevice: null,
	unsigned: false,
	noted: [],
	begun: state === 'working' || state === 'on_hold',
	arrivedAt: NOW - 31 * MINUTE,
	beganAt: state === 'working' || state === 'on_hold' ? NOW - 30 * MINUTE : null,
	attempt: 1,
	lastAnswerAt: NOW - MINUTE,
	lost: { ms: 0, unpaidMs: 0 },
	allotted: 60 * MINUTE,
	answered: 20,
	marked: 0,
	deadline: NOW + 30 * MINUTE,
	remaining: 30 * MINUTE,
	standing: false,
	reckonedAt: NOW,
	extra: null,
	ownWindow: null,
	lastEntry: NOW + 10 * MINUTE,
	receipt: null,
	at: null,
	shows: null,
	battery: null,
	hand: null,
	unread: null,
	lapses: null,
	pace: 'calm',
	rapid: 0,
	heldBack: null,
	late: 0,
	movedOn: false,
	...change
});
const RULES = { questions: 24, leavingsAllowed: 2, limitMinutes: 60, opens: NOW };
const kinds = (...seats: SeatView[]) => needsYou(seats, [], RULES, NOW).map((need) => need.kind);

describe('who needs the proctor', () => {
	it('whom the rules paused, from the first second; a break needs nobody', () => {
		const paused = seat('on_hold', { heldFrom: 'working', heldBySystem: true, since: NOW });
		expect(kinds(paused)).toEqual(['held_by_rules']);
		expect(kinds(seat('on_hold', { heldFrom: 'working', heldBySystem: true, onBreak: true, since: 0 }))).toEqual([]);
	});

	it('nobody whose paper has ended with a hand up', () => {
		const hand = { text: '', at: NOW - MINUTE };
		expect(kinds(seat('working', { hand }))).toEqual(['hand']);
		expect(kinds(seat('handed_in', { hand }), seat('carried_over', { hand }))).toEqual([]);
	});

	it('again when there is more of what was seen', () => {
		const of = (rapid: number) => needsYou([seat('working', { id: 'x', pace: 'watch', rapid })], [], RULES, NOW)[0];
		expect([of(3).revision === of(3).revision, of(3).revision === of(4).revision]).toEqual([true, false]);
		expect(of(3).since).toBe(NOW - MINUTE);
	});

	it('nobody, in a quiet room', () => {
		expect(kinds(seat('working'), seat('handed_in'), seat('expected'), seat('let_in'), seat('on_hold'))).toEqual([]);
	});

	it('in the order that is written down: lost line, second device, door, hold, time', () => {
		const lost = seat('working', { line: { up: false, since: NOW - 100_000 } });
		const other = seat('working', { otherDevice: { name: 'Phone', at: NOW } });
		const door = seat('at_door');
		const held = seat('on_hold', { since: NOW - 4 * MINUTE, heldFrom: 'working' });
		const short = seat('working', { remaining: 4 * MINUTE, answered: 10 });
		expect(kinds(short, held, door, other, lost)).toEqual([
			'line_lost',
			'second_device',
			'at_door',
			'on_hold',
			'time_short'
		]);
	});

	it('puts whoever stands at a closing door beside those who lose time', () => {
		const lost = seat('working', { line: { up: false, since: NOW - 5_000 } });
		const closing = seat('at_door', { lastEntry: NOW + MINUTE, since: NOW - 60_000 });
		expect(kinds(lost, closing)).toEqual(['at_door', 'line_lost']);
	});

	it('leaves out who is barred, who has moved on, and who waits for a device', () => {
		const barred = seat('on_hold', { heldFrom: 'expected', since: 0 });
		const moved = seat('working', { movedOn: true, line: { up: false, since: 0 } });
		expect(kinds(barred, moved, seat('at_door', { device: null }))).toEqual([]);
	});

	it('tells what looks wrong after who waits, and each seat once', () => {
		const lapses = { left: 3, tried: 0, last: NOW, awaySince: null };
		const hand = seat('working', { hand: { text: '', at: NOW } });
		const left = seat('working', { lapses });
		const rushing = seat('working', { pace: 'watch', rapid: 3, lapses });
		const spoiled = seat('working', { pace: 'spoiled', rapid: 8 });
		const battery = seat('working', { battery: 0.1 });
		expect(kinds(battery, left, rushing, spoiled, hand)).toEqual(['hand', 'spoiled', 'rushing', 'left', 'battery']);
	});

	it('an allowed number of times away is no need, being away now is', () => {
		const away = (left: number, awaySince: number | null) =>
			seat('working', { lapses: { left, tried: 0, last: NOW, awaySince } });
		expect(kinds(away(2, null))).toEqual([]);
		expect(kinds(away(1, NOW))).toEqual(['left']);
		expect(kinds(away(3, null))).toEqual(['left']);
	});

	it('tells of those the door refused, but not of one wrong number', () => {
		const refusal = (code: string, tries = 1) => ({
			id: code,
			code,
			device: 'Tablet',
			tries,
			at: NOW,
			waitsUntil: null,
			sittingId: null,
			candidate: null
		});
		const acts = (code: string, tries?: number) =>
			needsYou([], [refusal(code, tries)], RULES, NOW).map((need) => need.acts[0]);
		expect(acts('identity_unknown')).toEqual([]);
		expect(acts('identity_unknown', 2)).toEqual(['seen']);
		const waiting = (waitsUntil: number) =>
			needsYou([], [{ ...refusal('identity_unknown', 7), waitsUntil }], RULES, NOW)[0].acts[0];
		expect(waiting(NOW + 4_000)).toBe('forgive');
		expect(waiting(NOW - 1)).toBe('seen');
		expect(acts('past_last_entry')).toEqual(['admit']);
		expect(acts('not_on_list')).toEqual(['add']);
	});

	it('does not flicker: time alone never swaps two who wait for the same thing', () => {
		fc.assert(
			fc.property(
				fc.array(fc.integer({ min: 1, max: 90_000 }), { minLength: 2, maxLength: 20 }),
				fc.nat(60_000),
				(ages, later) => {
					const seats = ages.map((age) => seat('working', { line: { up: false, since: NOW - age } }));
					const order = (now: number) => needsYou(seats, [], RULES, now).map((need) => need.key);
					expect(order(NOW + later)).toEqual(order(NOW));
				}
			)
		);
	});
});

describe('the tally', () => {
	it('counts everyone once', () => {
		const anySeat = fc.record({ state: fc.constantFrom(...SITTING_STATES), up: fc.boolean() });
		fc.assert(
			fc.property(fc.array(anySeat, { maxLength: 100 }), (room) => {
				const tally = tallyOf(room.map(({ state, up }) => seat(state, { line: { up, since: 0 } })));
				expect(TALLY_ORDER.reduce((sum, key) => sum + tally[key], 0)).toBe(room.length);
			})
		);
	});
});

describe('how far a room is', () => {
	const up = { up: true, since: 0 };
	it('counts who has come, who is missing, and whose screen says that it is ready', () => {
		const room = [
			seat('expected', { name: 'Tobias Rook' }),
			seat('absent'),
			seat('at_door'),
			seat('let_in', { shows: 'let_in', line: up }),
			seat('let_in', { shows: 'at_door', line: up }),
			seat('let_in', { shows: 'let_in', line: { up: false, since: 0 } }),
			seat('working', { shows: 'working', line: up })
		];
		expect(roomReady(room)).toEqual({
			meant: 6,
			come: 5,
			missing: ['Tobias Rook'],
			letIn: 3,
			screens: 2,
			mayWork: 4
		});
	});
});

describe('time left on screen', () => {
	it('runs by the clock, stands in a stop, and never goes below nothing', () => {
		expect(remainingNow(seat('working'), NOW + 10 * MINUTE)).toBe(20 * MINUTE);
		expect(remainingNow(seat('working'), NOW + 40 * MINUTE)).toBe(0);
		expect(remainingNow(seat('on_hold', { standing: true }), NOW + 10 * MINUTE)).toBe(30 * MINUTE);
		expect(remainingNow(seat('let_in'), NOW + 10 * MINUTE)).toBe(30 * MINUTE);
		expect(remainingNow(seat('working', { remaining: null }), NOW)).toBeNull();
	});
});

describe('seats', () => {
	it('change, come and go, and are the same map when nothing changes', () => {
		const [a, b, c] = [seat('working'), seat('at_door'), seat('expected')];
		const seats = seatsOf([a, b]);
		const moved = { ...b, state: 'let_in' as const };
		const next = changedSeats(seats, { seats: [moved, c], gone: [a.id] });
		expect([...next.values()]).toEqual([moved, c]);
		expect([...seats.values()]).toEqual([a, b]);
		expect(changedSeats(next, { seats: [], gone: [] })).toBe(next);
	});
});

describe('many at once', () => {
	const lost = (since: number) => seat('working', { line: { up: false, since } });
	const room = (lines: number, others: number) => [
		...Array.from({ length: lines }, (_, i) => lost(NOW - i * 1_000)),
		...Array.from({ length: others }, () => seat('working'))
	];

	it('whose lines are lost are one need, with the first that it began with, and hide nobody else', () => {
		const hand = seat('working', { hand: { text: 'Ink', at: NOW } });
		const needs = needsYou([hand, ...room(24, 1)], [], RULES, NOW);
		expect(needs.map(({ kind, seats }) => [kind, seats.length])).toEqual([
			['line_lost', 24],
			['hand', 1]
		]);
		expect(needs[0]).toMatchObject({ seat: null, since: NOW - 23_000, acts: ['hold'] });
		expect(needCounts(needs)).toEqual([
			['line_lost', 24],
			['hand', 1]
		]);
	});

	it('are each for themselves while they are few, or few of a large room', () => {
		expect(kinds(...room(3, 0))).toHaveLength(3);
		expect(kinds(...room(4, 8))).toHaveLength(1);
		expect(kinds(...room(4, 9))).toHaveLength(4);
	});

	it('come back once another joins them, after they were put off', () => {
		const before = needsYou(room(6, 2), [], RULES, NOW)[0];
		const after = needsYou([...room(6, 1), lost(NOW + 1_000)], [], RULES, NOW + 1_000)[0];
		const fewer = needsYou(room(5, 3), [], RULES, NOW)[0];
		expect([after.key, fewer.key]).toEqual([before.key, before.key]);
		expect([after.revision === before.revision, fewer.revision === before.revision]).toEqual([false, true]);
	});

	it('who are on hold go on together; whom the rules paused is looked at alone', () => {
		const held = () => seat('on_hold', { since: NOW - 4 * MINUTE, heldFrom: 'working', reason: 'Fire alarm' });
		// Whom somebody held for a reason of their own is not resumed with them.
		const apart = seat('on_hold', { since: NOW - 5 * MINUTE, heldFrom: 'working', reason: 'To be spoken to' });
		const paused = () => seat('on_hold', { since: NOW, heldFrom: 'working', heldBySystem: true });
		const needs = needsYou(
			[held(), apart, held(), held(), held(), paused(), paused(), paused(), paused()],
			[],
			RULES,
			NOW
		);
		expect(needs.map(({ kind, seats, acts }) => [kind, seats.length, acts[0]])).toEqual([
			...Array.from({ length: 4 }, () => ['held_by_rules', 1, 'resume']),
			['on_hold', 1, 'resume'],
			['on_hold', 4, 'resume']
		]);
	});

	it('are the same people as before, each once', () => {
		fc.assert(
			fc.property(fc.nat(40), fc.nat(40), fc.nat(20), (lines, others, waiting) => {
				const seats = [...room(lines, others), ...Array.from({ length: waiting }, () => seat('at_door'))];
				const concerned = needsYou(seats, [], RULES, NOW).flatMap((need) => need.seats.map(({ id }) => id));
				expect(concerned.toSorted()).toEqual(
					seats
						.filter(({ state, line }) => state === 'at_door' || line?.up === false)
						.map(({ id }) => id)
						.toSorted()
				);
			})
		);
	});
});

describe('needs by kind', () => {
	it('are counted in the order of urgency', () => {
		const lost = () => seat('working', { line: { up: false, since: NOW - MINUTE } });
		const needs = needsYou([seat('at_door'), lost(), seat('at_door'), lost(), lost()], [], RULES, NOW);
		expect(needCounts(needs)).toEqual([
			['line_lost', 3],
			['at_door', 2]
		]);
	});
});

describe('whom an act reaches', () => {
	const ACTS = {
		let_in: { kind: 'let_in' },
		turn_away: { kind: 'turn_away', reason: 'Wrong room' },
		hold: { kind: 'hold', reason: 'Fire alarm', stopsClock: true },
		resume: { kind: 'resume' },
		move_device: { kind: 'move_device' },
		hand_in: { kind: 'hand_in', receipt: 'R', reason: 'Asked to stop' },
		carry_over: { kind: 'carry_over', reason: 'Unwell' },
		mark_absent: { kind: 'mark_absent' },
		reopen: { kind: 'reopen', reason: 'By mistake' },
		set_aside: { kind: 'set_aside', reason: 'Incident' },
		restore: { kind: 'restore' },
		expect_again: { kind: 'expect_again' },
		continue_later: { kind: 'continue_later', reason: 'By mistake' },
		allow_fresh: { kind: 'allow_fresh', reason: 'Incident' }
	} satisfies Record<string, CommandBody>;
	it('is what the server will do, for every act, state, device and beginning', () => {
		for (const body of Object.values(ACTS)) {
			for (const state of SITTING_STATES) {
				for (const [hasDevice, begun] of [
					[true, true],
					[true, false],
					[false, true],
					[false, false]
				]) {
					const one = seat(state, { device: hasDevice ? 'Laptop' : null, begun });
					const sitting: Sitting = {
						...newSitting(one.id, 's1', NOW),
						state,
						heldFrom: 'working',
						setAsideFrom: 'working',
						device: hasDevice ? { id: 'd', name: 'Laptop', epoch: 1 } : null,
						beganAt: begun ? NOW - MINUTE : null
					};
					const command = { ...body, id: 'c', by: { role: 'coordinator' as const, id: 'ode' } };
					const expected = decide(sitting, command, { ...WILLING, now: NOW }).ok ? [one] : [];
					expect({ act: body.kind, state, hasDevice, begun, touched: reach(body.kind, [one]).touched }).toEqual({
						act: body.kind,
						state,
						hasDevice,
						begun,
						touched: expected
					});
				}
			}
		}
	});

	it('offers what the table gives each role, and nothing to who has moved on', () => {
		expect(offers(seat('working'), 'proctor')).toEqual(['hold', 'move_device', 'hand_in', 'carry_over']);
		expect(offers(seat('set_aside', { begun: true }), 'coordinator')).toEqual([
			'restore',
			'continue_later',
			'allow_fresh'
		]);
		expect(offers(seat('set_aside', { begun: true }), 'proctor')).toEqual([]);
		expect(offers(seat('at_door', { device: null, begun: true }), 'proctor')).not.toContain('let_in');
		expect(offers(seat('working', { movedOn: true }), 'coordinator')).toEqual([]);
	});

	it('leaves out who goes on in another session, and names whom it leaves', () => {
		const [here, gone, done] = [seat('working'), seat('working', { movedOn: true }), seat('handed_in')];
		expect(reach('hold', [here, gone, done])).toEqual({ touched: [here], left: [gone, done] });
	});
});

describe('how a sitting ended is told to its candidate as it was', () => {
	it.each([
		['handed_in', 'candidate', false, 'You handed in'],
		['handed_in', 'staff', false, 'Your proctor handed in for you'],
		['handed_in', 'rules', false, 'Your work was handed in by the rules of this paper'],
		['time_up', 'rules', false, 'Your work was handed in for you'],
		['time_up', 'rules', true, 'Your work ended']
	] as const)('%s by %s', (state, by, countsNothing, words) => {
		expect(endedInWords({ state, ended: { at: NOW, receipt: 'R', by, countsNothing } })).toBe(words);
	});
});

describe('how far a session is', () => {
	const head = (change: Partial<RoomHead>): RoomHead =>
		({
			zone: 'Europe/London',
			doorOpens: NINE - 15 * MINUTE,
			opens: NINE,
			lastEntry: NINE + 20 * MINUTE,
			endedAt: null,
			clockStarts: 'candidate',
			roomStartedAt: null,
			limitMinutes: 60,
			graceMinutes: 2,
			...change
		}) as RoomHead;
	const NINE = Date.parse('2026-12-08T09:00:00Z');
	const working = (deadline: number) => seat('working', { deadline });

	it.each([
		['before the door opens', head({}), NINE - 60 * MINUTE, 'Planned', 'starts 09:00, the door opens 08:45'],
		['door open', head({}), NINE - 6 * MINUTE, 'Door open', 'starts in 6:00'],
		['open', head({}), NINE + 5 * MINUTE, 'Running', 'opened 09:00 · last entry in 15:00'],
		['past last entry', head({}), NINE + 21 * MINUTE, 'Running', 'opened 09:00'],
		['one clock, not started', head({ clockStarts: 'room' }), NINE + MINUTE, 'Door open', 'opened 09:00'],
		[
			'one clock, started early',
			head({ clockStarts: 'room', roomStartedAt: NINE - 4 * MINUTE }),
			NINE - MINUTE,
			'Running',
			'started 08:56'
		],
		['let begin early', head({ openedEarlyAt: NINE - 3 * MINUTE }), NINE - MINUTE, 'Running', 'opened 08:57'],
		['ended', head({ endedAt: NINE + 90 * MINUTE }), NINE + 95 * MINUTE, 'Ended', 'ended 10:30']
	])('%s', (_, room, now, stage, times) => {
		expect(stageInWords(room, now)).toBe(stage);
		expect(timesInWords(room, [], now)).toContain(times);
	});

	it('says when the first and the last are done, once where that is the same', () => {
		const past = head({ lastEntry: null });
		const ten = NINE + 60 * MINUTE;
		expect(timesInWords(past, [working(ten), working(ten)], NINE)).toBe(
			'60 + 2 = 62 min · opened 09:00 · first ends 10:00'
		);
		expect(timesInWords(past, [working(ten), working(ten + 30 * MINUTE), seat('handed_in')], NINE)).toBe(
			'60 + 2 = 62 min · opened 09:00 · first ends 10:00, last 10:30'
		);
	});
});
