import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ENTRY_REFUSALS } from '../access';
import {
	decide,
	evolve,
	newSitting,
	refusal,
	REFUSAL_CODES,
	SITTING_STATES,
	TABLE,
	type Command,
	type CommandBody,
	type CommandKind,
	type Context,
	type Role,
	type Sitting,
	type SittingState
} from '.';
import { WILLING } from './willing';
import { runs } from '$core/testing/runs';

const BODIES: Record<CommandKind, CommandBody> = {
	arrive: { kind: 'arrive', sessionId: 's1', deviceId: 'd1', deviceName: 'Laptop 1' },
	turn_away: { kind: 'turn_away', reason: 'wrong room' },
	let_in: { kind: 'let_in' },
	begin: { kind: 'begin' },
	start_clock: { kind: 'start_clock' },
	hold: { kind: 'hold', reason: 'out of the room', stopsClock: true },
	resume: { kind: 'resume' },
	move_device: { kind: 'move_device' },
	hand_in: { kind: 'hand_in', receipt: 'R', reason: null },
	run_out: { kind: 'run_out', receipt: 'R' },
	carry_over: { kind: 'carry_over', reason: null },
	mark_absent: { kind: 'mark_absent' },
	take_from_paper: { kind: 'take_from_paper', receipt: 'R', reason: 'the power failed' },
	reopen: { kind: 'reopen', reason: 'pressed by mistake' },
	set_aside: { kind: 'set_aside', reason: 'spoilt' },
	restore: { kind: 'restore' },
	continue_later: { kind: 'continue_later', reason: 'pressed by mistake' },
	allow_fresh: { kind: 'allow_fresh', reason: 'spoilt by the alarm' },
	expect_again: { kind: 'expect_again' },
	take_back: { kind: 'take_back' },
	assign: { kind: 'assign', sessionId: 's2' },
	note_away: { kind: 'note_away', from: 0 },
	lose_line: { kind: 'lose_line', since: 900 },
	regain_line: { kind: 'regain_line' },
	refuse_other_device: { kind: 'refuse_other_device', deviceName: 'Phone' },
	note_device: { kind: 'note_device', what: 'forged', deviceName: '' }
};
const ACTOR: Record<CommandKind, Role> = {
	...(Object.fromEntries(Object.keys(BODIES).map((kind) => [kind, 'coordinator'])) as Record<CommandKind, Role>),
	arrive: 'candidate',
	begin: 'candidate',
	start_clock: 'system',
	run_out: 'system',
	lose_line: 'system',
	regain_line: 'system',
	refuse_other_device: 'system',
	note_device: 'system'
};

let next = 0;
const command = (kind: CommandKind, change: Partial<CommandBody> = {}, role = ACTOR[kind]): Command =>
	({ ...BODIES[kind], ...change, id: `c${next++}`, by: { role, id: 'x' } }) as Command;

function run(sitting: Sitting, kinds: (CommandKind | Command)[], context: Partial<Context> = {}): Sitting {
	let now = context.now ?? 1_000;
	for (const step of kinds) {
		const decision = decide(sitting, typeof step === 'string' ? command(step) : step, { ...WILLING, ...context, now });
		if (!decision.ok) throw new Error(`${JSON.stringify(step)} refused in ${sitting.state}: ${decision.refusal.code}`);
		sitting = decision.events.reduce(evolve, sitting);
		now += 1_000;
	}
	return sitting;
}
const fresh = () => newSitting('one', 's1', 0);
const codeOf = (sitting: Sitting, step: Command, context: Partial<Context> = {}) => {
	const decision = decide(sitting, step, { ...WILLING, ...context });
	return decision.ok ? 'accepted' : decision.refusal.code;
};

/** The shortest way into each state, so that every pair of the table can be tried. */
const WAY: Record<SittingState, CommandKind[]> = {
	expected: [],
	at_door: ['arrive'],
	let_in: ['arrive', 'let_in'],
	working: ['arrive', 'let_in', 'begin'],
	on_hold: ['arrive', 'let_in', 'begin', 'hold'],
	carried_over: ['arrive', 'let_in', 'begin', 'carry_over'],
	handed_in: ['arrive', 'let_in', 'begin', 'hand_in'],
	time_up: ['arrive', 'let_in', 'begin'],
	absent: ['mark_absent'],
	set_aside: ['arrive', 'let_in', 'begin', 'set_aside']
};
const inState = (state: SittingState) => {
	const sitting = run(fresh(), WAY[state]);
	return state === 'time_up' ? run(sitting, ['run_out'], { over: true }) : sitting;
};

/** The rows of the design's table for the commands that change the state, written out by hand. */
const DESIGNED: [CommandKind, SittingState[]][] = [
	['turn_away', ['at_door', 'let_in']],
	['let_in', ['at_door']],
	['begin', ['let_in']],
	['hold', ['expected', 'at_door', 'let_in', 'working', 'carried_over']],
	['resume', ['on_hold']],
	['hand_in', ['working', 'on_hold']],
	['run_out', ['working', 'on_hold']],
	['carry_over', ['at_door', 'let_in', 'working', 'on_hold']],
	['mark_absent', ['expected', 'at_door']],
	['reopen', ['handed_in', 'time_up']],
	['restore', ['set_aside']],
	['expect_again', ['absent']],
	['arrive', ['expected', 'carried_over', 'absent']],
	['take_back', ['let_in', 'carried_over']],
	['start_clock', ['working', 'on_hold']],
	['continue_later', ['handed_in', 'time_up', 'set_aside']],
	['allow_fresh', ['set_aside']],
	['set_aside', ['working', 'on_hold', 'carried_over', 'handed_in', 'time_up']]
];

describe('the table', () => {
	it.each(DESIGNED)('%s is accepted from exactly the designed states', (kind, from) => {
		const accepted = SITTING_STATES.filter(
			(state) => codeOf(inState(state), command(kind), { over: kind === 'run_out' }) === 'accepted'
		);
		expect(accepted).toEqual(SITTING_STATES.filter((state) => from.includes(state)));
	});

	it('lets only the named roles act', () => {
		expect(codeOf(inState('at_door'), command('let_in', {}, 'candidate'))).toBe('not_allowed');
		expect(codeOf(inState('handed_in'), command('reopen', {}, 'proctor'))).toBe('not_allowed');
		expect(codeOf(inState('working'), command('set_aside', {}, 'proctor'))).toBe('not_allowed');
		expect(codeOf(inState('working'), command('run_out', {}, 'coordinator'), { over: true })).toBe('not_allowed');
		expect(codeOf(inState('working'), command('hand_in', {}, 'proctor'))).toBe('accepted');
	});

	it('has a sentence, and for most something that would work instead, for every refusal', () => {
		for (const code of [...REFUSAL_CODES, ...(Object.keys(ENTRY_REFUSALS) as (keyof typeof ENTRY_REFUSALS)[])]) {
			expect(refusal(code).message).toMatch(/^[A-Z].*\.$/);
		}
	});
});

describe('paths through a day', () => {
	it('lets in at the door by itself when admission is automatic', () => {
		expect(run(fresh(), ['arrive'], { admission: 'automatic' }).state).toBe('let_in');
	});

	it('refuses arrival with the door’s own reason', () => {
		const step = command('arrive');
		expect(codeOf(fresh(), step, { entry: { ok: false, code: 'past_last_entry' } })).toBe('past_last_entry');
		expect(codeOf(fresh(), step, { entry: { ok: false, code: 'code_expired' } })).toBe('code_expired');
		expect(codeOf(fresh(), step, { sessionOver: true })).toBe('session_over');
	});

	it('keeps somebody who is held before arriving from sitting with a leaked code', () => {
		const held = run(fresh(), ['hold']);
		expect(codeOf(held, command('arrive'))).toBe('barred');
		expect(run(held, ['resume', 'arrive']).state).toBe('at_door');
	});

	it('names a second device instead of letting it in, until the first is freed', () => {
		const other = { deviceId: 'd2', deviceName: 'Phone' };
		expect(codeOf(inState('working'), command('arrive', other))).toBe('second_device');
		const freed = run(inState('working'), ['move_device']);
		expect(freed).toMatchObject({ state: 'at_door', device: null, epoch: 1 });
		expect(codeOf(freed, command('let_in'))).toBe('no_device');
		const moved = run(freed, [command('arrive', other), 'let_in', 'begin'], { now: 60_000 });
		expect(moved).toMatchObject({
			state: 'working',
			epoch: 2,
			device: { id: 'd2' },
			beganAt: inState('working').beganAt
		});
	});

	it('does not lift a hold by freeing the device', () => {
		const freed = run(inState('on_hold'), ['move_device']);
		expect(freed).toMatchObject({ state: 'on_hold', heldFrom: 'at_door', device: null });
	});

	it('checks identity, client and start word at the beginning, and that time is left', () => {
		const ready = inState('let_in');
		expect(codeOf(ready, command('begin'), { identityConfirmed: false })).toBe('identity_unconfirmed');
		expect(codeOf(ready, command('begin'), { client: 'missing' })).toBe('client_unproven');
		expect(codeOf(ready, command('begin'), { client: 'outdated' })).toBe('client_outdated');
		expect(codeOf(ready, command('begin'), { roomWaits: true })).toBe('room_waits');
		expect(codeOf(ready, command('begin'), { startWord: 'wrong' })).toBe('start_word_wrong');
		expect(codeOf(ready, command('begin'), { remaining: 0 })).toBe('time_over');
	});

	it('reopens on the same day, on a later one only by grant, and never without time', () => {
		const done = inState('handed_in');
		expect(codeOf(done, command('reopen'))).toBe('accepted');
		expect(codeOf(done, command('reopen'), { endedToday: false })).toBe('another_day');
		expect(codeOf(done, command('reopen'), { endedToday: false, reopenGranted: true })).toBe('accepted');
		expect(codeOf(done, command('reopen'), { remaining: 0 })).toBe('no_time_left');
		expect(codeOf(done, command('reopen', { reason: ' ' }))).toBe('reason_missing');
	});

	it('says "already" to the loser of a race and changes nothing', () => {
		expect(codeOf(inState('let_in'), command('let_in'))).toBe('already');
		expect(codeOf(inState('on_hold'), command('hold'))).toBe('already');
		expect(codeOf(inState('handed_in'), command('hold'))).toBe('already_ended');
	});

	it('opens one stop for each absence from work and closes it on the return', () => {
		const lost = run(inState('working'), [command('lose_line', { since: 3_500 })], { now: 5_000 });
		expect(lost.stops).toEqual([{ from: 3_500, to: null, why: 'lost' }]);
		expect(lost.line).toEqual({ up: false, since: 3_500 });
		expect(run(lost, ['regain_line'], { now: 9_000 }).stops).toEqual([{ from: 3_500, to: 9_000, why: 'lost' }]);
		const carried = run(lost, ['carry_over'], { now: 9_000 });
		expect(carried.stops.map((stop) => [stop.why, stop.to])).toEqual([
			['lost', 9_000],
			['carried_over', null]
		]);
	});
});

describe('what belongs to the sitting', () => {
	const begun = (...more: CommandKind[]) => run(fresh(), ['arrive', 'let_in', 'begin', 'start_clock', ...more]);
	const elsewhere = () => run(begun('carry_over'), [command('assign', { sessionId: 's2' })], { now: 60_000 });

	it('the clock starts with the first question, at the latest a minute after beginning, and once', () => {
		const at = (now: number) => run(run(fresh(), ['arrive', 'let_in', 'begin']), ['start_clock'], { now });
		const began = run(fresh(), ['arrive', 'let_in', 'begin']).beganAt!;
		expect(at(began + 20_000).clockStartedAt).toBe(began + 20_000);
		expect(at(began + 90_000).clockStartedAt).toBe(began + 60_000);
		expect(run(at(began + 20_000), ['start_clock'], { now: began + 40_000 }).clockStartedAt).toBe(began + 20_000);
	});

	it('a clock that runs is its own: no other room starts it', () => {
		const shared = run(fresh(), ['arrive', 'let_in', 'begin'], { roomClock: 500 });
		expect(shared.clockStartedAt).toBe(500);
		const moved = run(shared, ['carry_over', command('assign', { sessionId: 's2' }), 'arrive', 'let_in', 'begin'], {
			now: 60_000,
			roomClock: 50_000
		});
		expect(moved.clockStartedAt).toBe(500);
	});

	it('turned away, it goes back to where it came from', () => {
		expect(run(fresh(), ['arrive', 'turn_away']).state).toBe('expected');
		expect(run(elsewhere(), ['arrive', 'turn_away']).state).toBe('carried_over');
		expect(run(run(fresh(), ['mark_absent']), ['arrive', 'turn_away']).state).toBe('absent');
		const freed = run(begun('move_device'), ['arrive', 'let_in', 'turn_away']);
		expect(freed).toMatchObject({ state: 'at_door', device: null });
	});

	it('begun is never absent', () => {
		expect(codeOf(begun('move_device'), command('mark_absent'))).toBe('has_begun');
	});

	it('absent holds against the door, also where it lets in by itself', () => {
		const context = { admission: 'automatic' as const };
		expect(run(run(fresh(), ['mark_absent']), ['arrive'], context).state).toBe('at_door');
		const twice = run(run(fresh(), ['mark_absent']), ['arrive', 'move_device', 'arrive'], context);
		expect(twice.state).toBe('at_door');
		expect(run(fresh(), ['mark_absent', 'expect_again', 'arrive'], context).state).toBe('let_in');
	});

	it('time that runs out between two devices ends the work, and is never carried over', () => {
		const over = { over: true };
		for (const between of [
			begun('move_device'),
			begun('move_device', 'arrive'),
			begun('move_device', 'arrive', 'let_in')
		]) {
			expect(codeOf(between, command('carry_over'), over)).toBe('over_not_carried');
			expect(codeOf(between, command('hand_in', {}, 'proctor'), over)).toBe('accepted');
			expect(run(between, ['run_out'], over).state).toBe('time_up');
		}
		// Still resting from the session before: the close of this one takes nothing from it.
		expect(codeOf(run(elsewhere(), ['arrive']), command('run_out'), over)).toBe('time_not_over');
		expect(codeOf(run(elsewhere(), ['arrive']), command('carry_over'), over)).toBe('accepted');
	});

	it('nobody is expected in a session that has ended', () => {
		expect(codeOf(inState('absent'), command('expect_again'), { sessionOver: true })).toBe('session_over');
	});

	it('"may continue, marked late" holds on another device too', () => {
		const freed = run(begun('move_device'), ['arrive', 'let_in']);
		expect(codeOf(freed, command('begin'), { remaining: 0, atTimeUp: 'flag' })).toBe('accepted');
		expect(codeOf(freed, command('begin'), { remaining: 0, atTimeUp: 'stop' })).toBe('time_over');
	});

	it('work begins at the opening and not before', () => {
		expect(codeOf(inState('let_in'), command('begin'), { beforeOpening: true })).toBe('not_open_yet');
	});

	it('a break is from work, and a hold takes its place', () => {
		expect(codeOf(inState('at_door'), command('hold', { isBreak: true }))).toBe('no_break_now');
		const onBreak = run(begun(), [command('hold', { isBreak: true })]);
		const held = run(onBreak, ['hold'], { now: 9_000 });
		expect(held).toMatchObject({ state: 'on_hold', heldFrom: 'working' });
		expect(held.stops.map((stop) => [stop.why, stop.to])).toEqual([
			['break', 9_000],
			['hold', null]
		]);
		expect(codeOf(held, command('hold'))).toBe('already');
		expect(run(held, ['resume']).state).toBe('working');
	});

	it('knows since when its device can know of a hold', () => {
		expect(run(begun(), ['hold'], { now: 9_000 }).holdKnownAt).toBe(9_000);
		const away = run(begun('lose_line'), ['hold'], { now: 9_000 });
		expect(away.holdKnownAt).toBeNull();
		expect(run(away, ['regain_line'], { now: 12_000 }).holdKnownAt).toBe(12_000);
		expect(run(begun(), ['hold', 'resume'], { now: 9_000 }).holdKnownAt).toBeNull();
	});

	it('handed in by mistake or set aside, it goes on another time with what is left', () => {
		const later = run(begun('hand_in'), ['continue_later'], { now: 60_000 });
		expect(later).toMatchObject({ state: 'carried_over', ended: null, device: null });
		expect(run(begun('set_aside'), ['continue_later'], { now: 60_000 })).toMatchObject({
			state: 'carried_over',
			setAsideFrom: null
		});
		const handedIn = begun('hand_in');
		expect(codeOf(handedIn, command('continue_later'), { sessionOver: true })).toBe('accepted');
		expect(codeOf(handedIn, command('continue_later'), { endedToday: false })).toBe('another_day');
		expect(codeOf(handedIn, command('continue_later'), { ownRemaining: 0 })).toBe('no_time_left');
		expect(codeOf(handedIn, command('continue_later', { reason: ' ' }))).toBe('reason_missing');
	});

	it('remembers its sessions, and whether it had begun in each', () => {
		expect(elsewhere().visits).toEqual([
			{ sessionId: 's1', from: 0, to: 60_000, begunBefore: false, begunWhenLeaving: true },
			{ sessionId: 's2', from: 60_000, to: null, begunBefore: true, begunWhenLeaving: false }
		]);
	});
});

describe('any sequence of commands', () => {
	const anyStep = fc.record({
		kind: fc.constantFrom(...(Object.keys(BODIES) as CommandKind[])),
		device: fc.constantFrom('d1', 'd2'),
		role: fc.option(fc.constantFrom<Role>('candidate', 'proctor', 'coordinator', 'system'), { nil: undefined }),
		over: fc.boolean(),
		repeat: fc.boolean(),
		wait: fc.integer({ min: 0, max: 5_000 })
	});

	it('keeps to the table, moves time forward only, and gives a repeated command the same answer once', () => {
		fc.assert(
			fc.property(fc.array(anyStep, { maxLength: 60 }), (steps) => {
				let sitting = fresh();
				let now = 1_000;
				/** The model: what must stay true whatever happens. */
				let began: number | null = null;
				let epoch = 0;
				for (const step of steps) {
					now += step.wait;
					const asked = command(step.kind, step.kind === 'arrive' ? { deviceId: step.device } : {}, step.role);
					const context = { ...WILLING, now, over: step.over };
					const before = sitting;
					const decision = decide(sitting, asked, context);
					if (decision.ok) {
						expect(TABLE[step.kind].from).toContain(before.state);
						expect(TABLE[step.kind].who).toContain(asked.by.role);
						sitting = decision.events.reduce(evolve, sitting);
						if (step.repeat && decision.events.length > 0) {
							const again = decide(sitting, asked, { ...context, now: now + 1 });
							expect(again).toEqual({ ok: true, events: [] });
						}
					}
					expect(SITTING_STATES).toContain(sitting.state);
					if (began !== null) expect(sitting.beganAt).toBe(began);
					began = sitting.beganAt;
					expect(sitting.epoch).toBeGreaterThanOrEqual(epoch);
					epoch = sitting.epoch;
					expect((sitting.state === 'on_hold') === (sitting.heldFrom !== null) || sitting.state === 'set_aside').toBe(
						true
					);
					if (sitting.state === 'working') expect(sitting.device).not.toBeNull();
					if (['working', 'handed_in', 'time_up', 'set_aside'].includes(sitting.state)) expect(began).not.toBeNull();
					if (began !== null) expect(['expected', 'absent']).not.toContain(sitting.state);
					if (before.clockStartedAt !== null) expect(sitting.clockStartedAt).toBe(before.clockStartedAt);
					if (before.state !== 'carried_over' && sitting.state === 'carried_over' && began !== null)
						expect(step.over && step.kind !== 'continue_later' && before.cameFrom !== 'carried_over').toBe(false);
					const openStops = sitting.stops.filter((stop) => stop.to === null).map((stop) => stop.why);
					expect(new Set(openStops).size).toBe(openStops.length);
					for (const stop of sitting.stops) expect(stop.to ?? now).toBeGreaterThanOrEqual(stop.from);
					if (sitting.state === 'working') expect(openStops.filter((why) => why !== 'lost')).toEqual([]);
				}
			}),
			{ numRuns: runs(600) }
		);
	});
});

describe('letting in, turning away and carrying over are undone', () => {
	const withoutLog = ({ commandIds: _, since: __, before: ___, ...rest }: Sitting) => rest;

	it.each<[string, CommandKind[], CommandKind]>([
		['letting in', ['arrive'], 'let_in'],
		['turning away at the door', ['arrive'], 'turn_away'],
		['turning away who was let in', ['arrive', 'let_in'], 'turn_away'],
		['turning away on the way back to work', ['arrive', 'let_in', 'begin', 'move_device', 'arrive'], 'turn_away'],
		['carrying over from the door', ['arrive', 'let_in'], 'carry_over'],
		['carrying over on hold', ['arrive', 'let_in', 'begin', 'hold'], 'carry_over']
	])('%s: everything is as it was', (_, way, kind) => {
		const before = run(fresh(), way);
		const after = run(before, [kind, 'take_back'], { now: 60_000 });
		expect(withoutLog(after)).toEqual(withoutLog(before));
	});

	it('carrying over at work gives back the time that passed in between', () => {
		const before = run(fresh(), ['arrive', 'let_in', 'begin', 'start_clock']);
		const after = run(before, ['carry_over', 'take_back'], { now: 60_000 });
		expect(after).toMatchObject({ state: 'working', device: before.device });
		expect(after.stops).toEqual([...before.stops, { from: 60_000, to: 61_000, why: 'carried_over' }]);
	});

	it('not after two minutes, not once something else has happened, and not what the system did', () => {
		const let_in = run(fresh(), ['arrive', 'let_in'], { now: 1_000 });
		expect(codeOf(let_in, command('take_back'), { now: 2_000 + 121_000 })).toBe('nothing_to_take_back');
		expect(codeOf(let_in, command('take_back'), { now: 2_000 + 119_000 })).toBe('accepted');
		expect(codeOf(run(let_in, ['begin']), command('take_back'))).toBe('not_from_this_state');
		expect(codeOf(run(let_in, ['lose_line', 'regain_line']), command('take_back'), { now: 9_000 })).toBe('accepted');
		const away = run(fresh(), ['arrive', 'turn_away', 'arrive']);
		expect(codeOf(away, command('take_back'))).toBe('nothing_to_take_back');
		const bySystem = run(fresh(), ['arrive', command('carry_over', {}, 'system')]);
		expect(codeOf(bySystem, command('take_back'))).toBe('nothing_to_take_back');
		expect(codeOf(run(let_in, ['take_back']), command('take_back'))).toBe('nothing_to_take_back');
		expect(codeOf(let_in, command('take_back'), { now: 9_000, sessionOver: true })).toBe('session_over');
	});
});
