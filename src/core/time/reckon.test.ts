import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
	allottedMinutes,
	LOADING_MS,
	MINUTE,
	NEW_TRACK,
	NO_GRANTS,
	ranOn,
	reckon,
	type MergedGrants,
	type Stop,
	type TimingRules,
	type Track
} from '.';

const RULES: TimingRules = {
	limitMinutes: 50,
	questionSeconds: null,
	endedBy: 'clock',
	clockStarts: 'candidate',
	clockStops: 'hold',
	atClose: 'finish',
	doorOpensMinutes: 5,
	lastEntryMinutes: 15,
	graceMinutes: 0,
	atTimeUp: 'hand_in',
	warnAtMinutes: [10, 5, 1],
	maxLimitMinutes: null
};
const at = (clock: string) => Date.parse(`2026-12-08T${clock}:00Z`);
const window = (opens: string, closes: string | null) => ({
	opens: at(opens),
	closes: closes === null ? null : at(closes)
});
const began = (clock: string, stops: Stop[] = []): Track => ({
	...NEW_TRACK,
	beganAt: at(clock),
	clockStartedAt: at(clock),
	stops
});
const NOT_BEGUN = NEW_TRACK;
const grants = (change: Partial<MergedGrants>): MergedGrants => ({ ...NO_GRANTS, ...change });

describe('the latest finish', () => {
	it('is what comes of beginning at the last instant that rules allow, and nobody who begins sooner ends later', () => {
		const some = fc.record({
			limitMinutes: fc.option(fc.integer({ min: 1, max: 300 })),
			clockStarts: fc.constantFrom('candidate' as const, 'room' as const),
			atClose: fc.constantFrom('cut' as const, 'finish' as const),
			lastEntryMinutes: fc.option(fc.integer({ min: 0, max: 200 })),
			maxLimitMinutes: fc.option(fc.integer({ min: 1, max: 450 })),
			length: fc.option(fc.integer({ min: 1, max: 3 * 24 * 60 })),
			factor: fc.constantFrom(1, 1.25, 1.5, 2),
			extraMinutes: fc.integer({ min: 0, max: 60 }),
			creditsMinutes: fc.integer({ min: 0, max: 20 }),
			early: fc.double({ min: 0, max: 1, noNaN: true })
		});
		fc.assert(
			fc.property(some, ({ length, factor, extraMinutes, creditsMinutes, early, ...timing }) => {
				const rules = { ...RULES, ...timing };
				const open = { opens: at('09:00'), closes: length === null ? null : at('09:00') + length * MINUTE };
				const own = grants({ factor, extraMinutes, creditsMinutes });
				const { latestFinish, lastEntry, windowEnd } = reckon(rules, open, own, NOT_BEGUN, at('08:00'));
				const last = rules.clockStarts === 'room' ? open.opens : Math.min(lastEntry ?? Infinity, windowEnd ?? Infinity);
				const endsOf = (from: number) =>
					reckon(rules, open, own, { ...NEW_TRACK, roomStartedAt: from, beganAt: from, clockStartedAt: from }, from)
						.deadline;
				if (last === Infinity) expect(latestFinish).toBe(null);
				else {
					expect(latestFinish).toBe(endsOf(last));
					const sooner = endsOf(open.opens + Math.floor(early * (last - open.opens)));
					if (latestFinish !== null) expect(sooner!).toBeLessThanOrEqual(latestFinish);
				}
			}),
			{ numRuns: 500 }
		);
	});

	it('of somebody at time and a half who may come until 09:15 is 10:30 for 50 minutes', () => {
		const more = grants({ factor: 1.5 });
		expect(reckon(RULES, window('09:00', '11:00'), more, NOT_BEGUN, at('08:00')).latestFinish).toBe(at('10:30'));
		expect(reckon(RULES, window('09:00', '11:00'), more, began('09:10'), at('09:20')).latestFinish).toBe(at('10:25'));
		const together = { ...RULES, clockStarts: 'room' as const };
		expect(reckon(together, window('09:00', '11:00'), more, NOT_BEGUN, at('08:00')).latestFinish).toBe(at('10:15'));
	});
});

// The figures of this block are common practice in running tests, not a published standard.
describe('check values from common practice', () => {
	it('50 minutes at time and a half is 75, at double 100', () => {
		expect(allottedMinutes(RULES, grants({ factor: 1.5 }))).toBe(75);
		expect(allottedMinutes(RULES, grants({ factor: 2 }))).toBe(100);
	});

	it('a 60-minute limit plus 30 is 90', () => {
		expect(allottedMinutes({ ...RULES, limitMinutes: 60 }, grants({ extraMinutes: 30 }))).toBe(90);
	});

	it('a three-minute quiz with one minute of grace ends after four', () => {
		const rules = { ...RULES, limitMinutes: 3, graceMinutes: 1 };
		const quiz = (clock: string) => reckon(rules, window('09:00', '10:00'), NO_GRANTS, began('09:00'), at(clock));
		expect(quiz('09:02').phase).toBe('running');
		expect(quiz('09:03').phase).toBe('grace');
		expect(quiz('09:04').phase).toBe('over');
		expect(quiz('09:02').graceEnds).toBe(at('09:04'));
	});

	it('start 13:15, door five minutes before, fifteen minutes of entry: door 13:10, last entry 13:30', () => {
		const day = reckon(RULES, window('13:15', null), NO_GRANTS, NOT_BEGUN, at('13:00'));
		expect(day).toMatchObject({ phase: 'before', doorOpens: at('13:10'), lastEntry: at('13:30') });
		expect(reckon(RULES, window('13:15', null), NO_GRANTS, NOT_BEGUN, at('13:10')).phase).toBe('door');
	});

	it('a window from 08:00 to 20:00 with 50 minutes: begun at 19:00 it ends 19:50; the last full start is 19:10', () => {
		const day = reckon(RULES, window('08:00', '20:00'), NO_GRANTS, began('19:00'), at('19:00'));
		expect(day).toMatchObject({ deadline: at('19:50'), latestFullStart: at('19:10'), cut: 0 });
		const longer = reckon(RULES, window('08:00', '20:00'), grants({ factor: 1.5 }), NOT_BEGUN, at('12:00'));
		expect(longer.latestFullStart).toBe(at('18:45'));
	});

	it('cut at the close, beginning five minutes after the last full start costs five minutes, told beforehand', () => {
		const rules: TimingRules = { ...RULES, atClose: 'cut' };
		const before = reckon(rules, window('08:00', '20:00'), NO_GRANTS, NOT_BEGUN, at('19:15'));
		expect(before).toMatchObject({ cut: 5 * MINUTE, remaining: 45 * MINUTE });
		const after = reckon(rules, window('08:00', '20:00'), NO_GRANTS, began('19:15'), at('19:20'));
		expect(after).toMatchObject({ cut: 5 * MINUTE, deadline: at('20:00'), remaining: 40 * MINUTE });
	});

	it('80 minutes at time and a quarter from 09:00 end at 10:40', () => {
		const rules = { ...RULES, limitMinutes: 80 };
		const day = reckon(rules, window('09:00', '10:30'), grants({ factor: 1.25 }), began('09:00'), at('09:00'));
		expect(day).toMatchObject({ allotted: 100 * MINUTE, deadline: at('10:40') });
	});
});

describe('the allotment', () => {
	it('rounds up in the candidate’s favour, but not for the sake of binary fractions', () => {
		expect(allottedMinutes({ ...RULES, limitMinutes: 45 }, grants({ factor: 1.25 }))).toBe(57);
		expect(allottedMinutes(RULES, grants({ factor: 1.1 }))).toBe(55);
		expect(50 * 1.1).toBeGreaterThan(55);
	});

	it('stops at the cap, and has none without a limit', () => {
		expect(allottedMinutes({ ...RULES, limitMinutes: 300, maxLimitMinutes: 450 }, grants({ factor: 2 }))).toBe(450);
		expect(allottedMinutes({ ...RULES, limitMinutes: null }, NO_GRANTS)).toBeNull();
		expect(allottedMinutes(RULES, grants({ unlimited: true }))).toBeNull();
	});
});

describe('whose clock it is', () => {
	const rules: TimingRules = { ...RULES, clockStarts: 'room', clockStops: 'never' };
	it('starts with the room, so that whoever comes late has less', () => {
		const atDoor: Track = { ...NEW_TRACK, roomStartedAt: at('09:00') };
		const late: Track = { ...atDoor, beganAt: at('09:12'), clockStartedAt: at('09:00') };
		expect(reckon(rules, window('09:00', null), NO_GRANTS, late, at('09:12'))).toMatchObject({
			deadline: at('09:50'),
			remaining: 38 * MINUTE
		});
		expect(reckon(rules, window('09:00', null), NO_GRANTS, atDoor, at('09:12')).remaining).toBe(38 * MINUTE);
		expect(reckon(rules, window('09:00', null), NO_GRANTS, atDoor, at('09:50')).phase).toBe('over');
	});

	it('is the candidate’s own in a window of their own', () => {
		const own = grants({ window: window('11:30', '13:00') });
		const track: Track = { ...began('11:40'), roomStartedAt: at('09:00') };
		const day = reckon(rules, window('09:00', '10:00'), own, track, at('11:40'));
		expect(day).toMatchObject({
			ownWindow: true,
			deadline: at('12:30'),
			doorOpens: at('11:25'),
			lastEntry: at('11:45')
		});
	});
});

describe('the loading of the paper', () => {
	const day = (clock: string, shown: string | null) =>
		reckon(
			RULES,
			window('09:00', null),
			NO_GRANTS,
			{ ...began('09:00'), clockStartedAt: shown === null ? null : at(shown) },
			at(clock)
		);

	it('costs nothing until the first question is on the screen', () => {
		expect(day('09:00', null).remaining).toBe(50 * MINUTE);
		expect(day('09:01', null).remaining).toBe(50 * MINUTE);
		expect(day('09:10', '09:00').remaining).toBe(40 * MINUTE);
	});

	it('is over after a minute in any case, so that nobody can wait with it', () => {
		expect(LOADING_MS).toBe(MINUTE);
		expect(day('09:11', null).remaining).toBe(40 * MINUTE);
	});
});

describe('a sitting that is carried over', () => {
	const carried: Track = {
		...began('09:00', [{ from: at('09:20'), to: null, why: 'carried_over' }]),
		isCarriedOver: true
	};
	const rules: TimingRules = { ...RULES, atClose: 'cut' };

	it('keeps its time when the window of the session it left closes', () => {
		expect(reckon(rules, window('09:00', '10:00'), NO_GRANTS, carried, at('12:00'))).toMatchObject({
			phase: 'running',
			remaining: 30 * MINUTE
		});
	});

	it('keeps its clock when another room is started', () => {
		const room: TimingRules = { ...RULES, clockStarts: 'room' };
		const going: Track = {
			...began('09:00', [{ from: at('09:20'), to: at('11:00'), why: 'carried_over' }]),
			roomStartedAt: at('11:00')
		};
		expect(reckon(room, window('11:00', null), NO_GRANTS, going, at('11:10')).remaining).toBe(20 * MINUTE);
	});

	it('has its lost minutes of before, without the next room closing later for it', () => {
		const before = grants({ earlierCreditsMinutes: 10 });
		const going = { ...carried, isCarriedOver: false };
		expect(reckon(RULES, window('11:00', '12:00'), before, going, at('11:00'))).toMatchObject({
			remaining: 40 * MINUTE,
			windowEnd: at('12:00')
		});
	});

	it('has had its stops settled by the rules it was sat under', () => {
		const held: Stop[] = [{ from: at('09:10'), to: at('09:20'), why: 'hold', counts: true }];
		const never: TimingRules = { ...RULES, clockStops: 'never' };
		expect(reckon(never, window('09:00', null), NO_GRANTS, began('09:00', held), at('09:30')).stopped).toBe(
			10 * MINUTE
		);
	});
});

describe('stops', () => {
	const stops: Stop[] = [
		{ from: at('09:10'), to: at('09:20'), why: 'hold' },
		{ from: at('09:15'), to: at('09:25'), why: 'lost' },
		{ from: at('09:30'), to: null, why: 'carried_over' }
	];
	const stoppedUnder = (clockStops: TimingRules['clockStops']) =>
		reckon({ ...RULES, clockStops }, window('09:00', null), NO_GRANTS, began('09:00', stops), at('09:40')).stopped /
		MINUTE;

	it('count by the rule sheet, overlaps once', () => {
		expect(stoppedUnder('never')).toBe(10);
		expect(stoppedUnder('hold')).toBe(20);
		expect(stoppedUnder('hold_or_lost')).toBe(25);
	});

	it('can be said not to stop the clock, hold by hold', () => {
		const one: Stop[] = [{ from: at('09:10'), to: null, why: 'hold', stopsClock: false }];
		const day = reckon(RULES, window('09:00', null), NO_GRANTS, began('09:00', one), at('09:20'));
		expect(day).toMatchObject({ stopped: 0, standing: false, remaining: 30 * MINUTE });
	});

	it('make time stand still, unless the close cuts', () => {
		const one: Stop[] = [{ from: at('09:10'), to: null, why: 'hold' }];
		const day = (atClose: TimingRules['atClose'], clock: string) =>
			reckon({ ...RULES, atClose }, window('09:00', '10:00'), NO_GRANTS, began('09:00', one), at(clock)).remaining! /
			MINUTE;
		expect([day('finish', '09:15'), day('finish', '09:55')]).toEqual([40, 40]);
		expect([day('cut', '09:15'), day('cut', '09:55')]).toEqual([40, 5]);
	});
});

describe('a server that was away', () => {
	const away: Stop = { from: at('09:10'), to: at('09:40'), why: 'away' };
	const lost: Stop = { from: at('09:10'), to: at('09:41'), why: 'lost' };

	it('takes nobody’s time, whatever the rules say of stops', () => {
		for (const clockStops of ['never', 'hold', 'hold_or_lost'] as const) {
			const { deadline, stopped } = reckon(
				{ ...RULES, clockStops },
				window('09:00', '11:00'),
				NO_GRANTS,
				began('09:00', [away]),
				at('09:40')
			);
			expect([deadline, stopped]).toEqual([at('10:20'), 30 * MINUTE]);
		}
	});

	it('is waited for by a close that cuts, unless it began after the close', () => {
		const cut = { ...RULES, limitMinutes: 90, atClose: 'cut' as const };
		const deadlineWith = (stop: Stop) =>
			reckon(cut, window('09:00', '09:30'), NO_GRANTS, began('09:00', [stop]), at('10:30')).deadline;
		expect(deadlineWith(away)).toBe(at('10:00'));
		expect(deadlineWith({ from: at('10:00'), to: at('10:20'), why: 'away' })).toBe(at('09:30'));
	});

	it('leaves of a lost line what ran on the clock', () => {
		expect(ranOn([away, lost], 'lost', 'hold', at('09:00'), at('10:00'))).toBe(MINUTE);
		expect(ranOn([lost], 'lost', 'hold', at('09:00'), at('10:00'))).toBe(31 * MINUTE);
		expect(ranOn([lost], 'lost', 'hold_or_lost', at('09:00'), at('10:00'))).toBe(0);
		// What was lost before the clock ran has cost nothing.
		expect(ranOn([lost], 'lost', 'hold', at('09:40'), at('10:00'))).toBe(MINUTE);
	});
});

describe('a paper that its proctor ends', () => {
	const byHand: TimingRules = { ...RULES, limitMinutes: 60, endedBy: 'proctor', clockStarts: 'room', graceMinutes: 2 };
	const track = (called: string | null, clock = '09:00'): Track => ({
		...began(clock),
		roomStartedAt: at('09:00'),
		timeCalledAt: called === null ? null : at(called)
	});
	const of = (grants: Partial<MergedGrants>, on: Track, now: string) =>
		reckon(byHand, window('09:00', null), { ...NO_GRANTS, ...grants }, on, at(now));

	it('has no end before it is called, and then one for all, also for those who came late', () => {
		expect(of({}, track(null), '10:20')).toMatchObject({ allotted: null, deadline: null, phase: 'running' });
		expect(of({}, track('09:50'), '09:50')).toMatchObject({
			deadline: at('09:50'),
			graceEnds: at('09:52'),
			phase: 'grace'
		});
		expect(of({}, { ...track('09:50'), clockStartedAt: at('09:00') }, '09:53').phase).toBe('over');
	});

	it('gives whoever has more as much more of what the room had: 50 minutes at time and a half are 75', () => {
		expect(of({ factor: 1.5 }, track('09:50'), '09:55')).toMatchObject({ deadline: at('10:15'), phase: 'running' });
		expect(of({ extraMinutes: 10 }, track('09:50'), '09:55').deadline).toBe(at('10:00'));
		expect(of({ unlimited: true }, track('09:50'), '12:00').deadline).toBeNull();
	});

	it('gives back what a hold took, and leaves own windows and carried-over work to what is planned', () => {
		const held: Stop[] = [{ from: at('09:10'), to: at('09:20'), why: 'hold' }];
		expect(of({}, { ...track('09:50'), stops: held }, '09:55').deadline).toBe(at('10:00'));
		const own = { opens: at('13:00'), closes: at('15:00') };
		expect(of({ window: own }, { ...track('09:50'), ...began('13:00') }, '13:30').deadline).toBe(at('14:00'));
		const before = { ...track(null), clockStartedAt: at('08:00') };
		expect(of({}, before, '08:30').deadline).toBe(at('09:00'));
	});
});

describe('warnings', () => {
	it('are due from their minute on, and one as long as the whole paper is left out', () => {
		const day = (clock: string) =>
			reckon({ ...RULES, limitMinutes: 10 }, window('09:00', null), NO_GRANTS, began('09:00'), at(clock)).warnings;
		expect(day('09:04').map((warning) => warning.minutes)).toEqual([5, 1]);
		expect(day('09:04').some((warning) => warning.due)).toBe(false);
		expect(day('09:05')[0].due).toBe(true);
		expect(day('09:10').some((warning) => warning.due)).toBe(false);
	});
});

describe('properties', () => {
	const minutes = (max: number) => fc.integer({ min: 0, max });
	const anyRules: fc.Arbitrary<TimingRules> = fc.record({
		limitMinutes: fc.option(fc.integer({ min: 1, max: 400 })),
		questionSeconds: fc.constant(null),
		endedBy: fc.constantFrom('clock', 'proctor'),
		clockStarts: fc.constantFrom('room', 'candidate'),
		clockStops: fc.constantFrom('never', 'hold', 'hold_or_lost'),
		atClose: fc.constantFrom('cut', 'finish'),
		doorOpensMinutes: minutes(60),
		lastEntryMinutes: fc.option(minutes(60)),
		graceMinutes: minutes(10),
		atTimeUp: fc.constantFrom('hand_in', 'stop', 'flag', 'zero'),
		warnAtMinutes: fc.array(minutes(30), { maxLength: 4 }),
		maxLimitMinutes: fc.option(fc.integer({ min: 1, max: 500 }))
	});
	const anyGrants: fc.Arbitrary<MergedGrants> = fc.record({
		factor: fc.double({ min: 1, max: 3, noNaN: true }),
		extraMinutes: minutes(120),
		window: fc.constant(null),
		earlierCreditsMinutes: minutes(20),
		creditsMinutes: minutes(60),
		unlimited: fc.boolean()
	});
	const day = at('09:00');
	const anyStops: fc.Arbitrary<Stop[]> = fc
		.array(
			fc.record({
				from: minutes(300).map((m) => day + m * MINUTE),
				length: fc.option(minutes(60)),
				why: fc.constantFrom<Stop['why']>('hold', 'break', 'lost', 'moved', 'handed_in', 'carried_over', 'set_aside')
			}),
			{ maxLength: 6 }
		)
		.map((stops) =>
			stops.map(({ from, length, why }) => ({ from, to: length === null ? null : from + length * MINUTE, why }))
		);
	const anyCase = fc.record({
		rules: anyRules,
		grants: anyGrants,
		closes: fc.option(fc.integer({ min: 1, max: 600 })),
		track: fc.record({
			roomStartedAt: fc.option(minutes(30).map((m) => day + m * MINUTE)),
			timeCalledAt: fc.option(minutes(400).map((m) => day + m * MINUTE)),
			beganAt: fc.option(minutes(60).map((m) => day + m * MINUTE)),
			clockStartedAt: fc.constant<number | null>(null),
			isCarriedOver: fc.boolean(),
			stops: anyStops
		}),
		now: fc.integer({ min: -60, max: 900 }).map((m) => day + m * MINUTE)
	});
	type Case = typeof anyCase extends fc.Arbitrary<infer T> ? T : never;
	const of = ({ rules, grants: given, closes, track, now }: Case) =>
		reckon(rules, { opens: day, closes: closes === null ? null : day + closes * MINUTE }, given, track, now);

	it('never gives negative time', () => {
		fc.assert(
			fc.property(anyCase, (one) => {
				const result = of(one);
				expect(result.remaining ?? 0).toBeGreaterThanOrEqual(0);
				expect(result.cut).toBeGreaterThanOrEqual(0);
				expect(result.stopped).toBeGreaterThanOrEqual(0);
				if (result.deadline !== null) expect(result.graceEnds!).toBeGreaterThanOrEqual(result.deadline);
			})
		);
	});

	it('counts stops once: cutting one in two, or telling it twice, changes nothing', () => {
		fc.assert(
			fc.property(anyCase, fc.double({ min: 0, max: 1, noNaN: true }), (one, share) => {
				const split = one.track.stops.flatMap((stop) => {
					const end = stop.to ?? Math.max(one.now, stop.from);
					const middle = Math.round(stop.from + (end - stop.from) * share);
					return [{ ...stop, to: middle }, { ...stop, from: middle }, stop];
				});
				expect(of({ ...one, track: { ...one.track, stops: split } }).stopped).toBe(of(one).stopped);
			})
		);
	});

	it('more grant is never less time', () => {
		const more = fc.record({
			factor: fc.double({ min: 0, max: 1, noNaN: true }),
			extra: minutes(60),
			credits: minutes(30)
		});
		fc.assert(
			fc.property(anyCase, more, (one, add) => {
				const richer = {
					...one.grants,
					factor: one.grants.factor + add.factor,
					extraMinutes: one.grants.extraMinutes + add.extra,
					creditsMinutes: one.grants.creditsMinutes + add.credits
				};
				const before = of(one);
				const after = of({ ...one, grants: richer });
				const unlimited = of({ ...one, grants: { ...one.grants, unlimited: true } });
				expect(after.remaining ?? Infinity).toBeGreaterThanOrEqual(before.remaining ?? Infinity);
				expect(after.deadline ?? Infinity).toBeGreaterThanOrEqual(before.deadline ?? Infinity);
				expect(unlimited.remaining ?? Infinity).toBeGreaterThanOrEqual(before.remaining ?? Infinity);
			})
		);
	});

	it('credits reach the candidate whole, whatever the close does', () => {
		fc.assert(
			fc.property(anyCase, fc.integer({ min: 1, max: 60 }), (one, credit) => {
				const before = of(one);
				const after = of({ ...one, grants: { ...one.grants, creditsMinutes: one.grants.creditsMinutes + credit } });
				if (before.deadline !== null) expect(after.deadline! - before.deadline).toBe(credit * MINUTE);
			})
		);
	});

	it('remaining stands still during a stop that counts, unless the close cuts', () => {
		fc.assert(
			fc.property(anyCase, minutes(120), (one, wait) => {
				const stop: Stop = { from: one.now, to: null, why: 'carried_over' };
				const held = {
					...one,
					rules: { ...one.rules, atClose: 'finish' as const, clockStarts: 'candidate' as const },
					track: { ...one.track, beganAt: day, clockStartedAt: day, stops: [...one.track.stops, stop] },
					now: Math.max(one.now, day)
				};
				const later = { ...held, now: held.now + wait * MINUTE };
				if (one.now >= day) expect(of(later).remaining).toBe(of(held).remaining);
			})
		);
	});
});
