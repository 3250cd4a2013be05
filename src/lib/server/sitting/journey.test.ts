import fc from 'fast-check';
import { nanoid } from 'nanoid';
import { expect, it } from 'vitest';
import { DEFAULT_RULES, type SessionRules } from '$core/session';
import { ownRemaining, type Actor, type CommandBody } from '$core/sitting';
import { MINUTE } from '$core/time';
import { accountFor } from '../closing';
import { giveGrant } from '../grants';
import { addToSession, endSession, findSession, rosterFor, startRoom, tendOwnWindows } from '../session';
import { sweep } from '../sweep';
import {
	arriveAt,
	buildHouse,
	CANDIDATE,
	COORDINATOR,
	openDoor,
	planMakeUp,
	PROCTOR,
	type House
} from '../testing/house';
import { act, begin, loadSitting, startClock, type Loaded } from '.';
import { runs } from '$core/testing/runs';

/**
 * One candidate's way through several sessions, at random: whatever happens in whatever order, time is neither given twice
 * nor lost, nobody who has begun is absent, nobody without time is carried over, every ledger adds up, and whoever is
 * owed a sitting can be given one.
 */
const SYSTEM: Actor = { role: 'system', id: 'test' };
const starts = fc.constantFrom('room' as const, 'candidate' as const);
const stops = fc.constantFrom('never' as const, 'hold' as const, 'hold_or_lost' as const);
const simple = (kind: string) => fc.constant({ kind });
const STEPS = fc.oneof(
	{ weight: 6, arbitrary: fc.record({ kind: fc.constant('wait'), minutes: fc.integer({ min: 0, max: 25 }) }) },
	{ weight: 8, arbitrary: simple('sit') },
	{ weight: 2, arbitrary: simple('arrive') },
	{ weight: 2, arbitrary: simple('let_in') },
	{ weight: 2, arbitrary: simple('begin') },
	...['start_room', 'start_clock'].map((kind) => ({ weight: 1, arbitrary: simple(kind) })),
	{ weight: 2, arbitrary: fc.record({ kind: fc.constant('hold'), stopsClock: fc.boolean() }) },
	...[
		'resume',
		'move_device',
		'turn_away',
		'lose_line',
		'regain_line',
		'carry_over',
		'mark_absent',
		'take_from_paper',
		'expect_again',
		'take_back'
	].map((kind) => ({ weight: 1, arbitrary: simple(kind) })),
	...['hand_in', 'reopen', 'set_aside', 'restore', 'continue_later', 'credit', 'credit_all', 'own_window'].map(
		(kind) => ({
			weight: 1,
			arbitrary: simple(kind)
		})
	),
	{ weight: 3, arbitrary: simple('end_session') },
	{ weight: 4, arbitrary: fc.record({ kind: fc.constant('next_session'), starts, stops }) },
	{ weight: 1, arbitrary: simple('add_to_next') }
);
type Step = typeof STEPS extends fc.Arbitrary<infer T> ? T & { minutes?: number; stopsClock?: boolean } : never;
const GRANTS = ['credit', 'credit_all'];

/** The house, and what the steps need to know of it. */
class Journey {
	/** The sessions planned so far, the one that steps act on last. */
	sessions = ['s1'];
	codes = new Map<string, string>();
	devices = 0;

	constructor(readonly house: House) {}

	get present() {
		return this.sessions.at(-1)!;
	}
	one = async () => (await loadSitting(this.house.otium.db, 'sit0', this.house.otium.now()))!;

	async step(step: Step): Promise<void> {
		const { otium, clock } = this.house;
		const { sitting } = await this.one();
		const here = sitting.sessionId;
		const command = (body: CommandBody, by: Actor) => act(otium, [{ id: nanoid(), sittingId: 'sit0', by, body }]);
		const grant = (body: Parameters<typeof giveGrant>[3]['body'], candidateId: string | null) =>
			giveGrant(otium, COORDINATOR, nanoid(), {
				candidateId,
				scope: { kind: 'session', id: here },
				body,
				reason: 'x',
				givenBy: 'ode',
				givenAt: otium.now()
			});
		switch (step.kind) {
			case 'wait':
				clock.at += step.minutes! * MINUTE;
				return sweep(otium);
			case 'arrive': {
				this.house.sessionId = here;
				const session = (await findSession(otium.db, here))!;
				const code = session.doorCode ?? (session.endedAt === null ? await openDoor(this.house) : null);
				if (code) await arriveAt(this.house, 0, code, `device${this.devices++}`).catch(() => {});
				return;
			}
			case 'sit': {
				// As on a day on which nothing goes wrong: from waiting for the opening to the first question.
				clock.at = Math.max(clock.at, (await findSession(otium.db, here))!.window.opens);
				for (const kind of ['arrive', 'let_in', 'start_room', 'begin', 'start_clock'])
					await this.step({ kind } as Step);
				return;
			}
			case 'begin':
				await begin(otium, 'sit0', nanoid(), '');
				return;
			case 'start_clock':
				return startClock(otium, 'sit0');
			case 'start_room':
				await startRoom(otium, here, PROCTOR);
				return;
			case 'hold':
				await command({ kind: 'hold', reason: 'x', stopsClock: step.stopsClock! }, PROCTOR);
				return;
			case 'turn_away':
				await command({ kind: 'turn_away', reason: 'x' }, PROCTOR);
				return;
			case 'lose_line':
				await command({ kind: 'lose_line', since: otium.now() }, SYSTEM);
				return;
			case 'regain_line':
				await command({ kind: 'regain_line' }, SYSTEM);
				return;
			case 'carry_over':
				await command({ kind: 'carry_over', reason: null }, PROCTOR);
				return;
			case 'hand_in':
				await command({ kind: 'hand_in', receipt: 'R', reason: null }, CANDIDATE);
				return;
			case 'take_from_paper':
				await command({ kind: 'take_from_paper', receipt: 'P', reason: 'x' }, COORDINATOR);
				return;
			case 'reopen':
			case 'set_aside':
			case 'continue_later':
				await command({ kind: step.kind, reason: 'x' }, COORDINATOR);
				return;
			case 'let_in':
			case 'resume':
			case 'move_device':
			case 'mark_absent':
			case 'restore':
			case 'expect_again':
			case 'take_back':
				await command({ kind: step.kind }, COORDINATOR);
				return;
			case 'credit':
				await grant({ kind: 'credit', minutes: 5 }, 'can0');
				return;
			case 'credit_all':
				await grant({ kind: 'credit', minutes: 3 }, null);
				return;
			case 'own_window':
				await grant({ kind: 'own_window', opens: otium.now(), closes: otium.now() + 200 * MINUTE }, 'can0');
				return;
			case 'end_session':
				await endSession(otium, here, PROCTOR);
				return tendOwnWindows(otium, here, PROCTOR);
			case 'next_session':
				return this.planNext(step as { starts: 'room' | 'candidate'; stops: 'never' | 'hold' | 'hold_or_lost' });
			case 'add_to_next':
				await addToSession(otium, COORDINATOR, (await findSession(otium.db, this.present))!, 'can0');
				return;
		}
	}

	/** A session half an hour from now, on the next day when this one is nearly over. */
	async planNext({ starts, stops }: { starts: 'room' | 'candidate'; stops: 'never' | 'hold' | 'hold_or_lost' }) {
		const { clock } = this.house;
		const rules: SessionRules = {
			...DEFAULT_RULES,
			timing: {
				...DEFAULT_RULES.timing,
				limitMinutes: 60,
				clockStarts: starts,
				clockStops: stops,
				lastEntryMinutes: null,
				doorOpensMinutes: 5
			}
		};
		const opens = new Date(Math.ceil(clock.at / MINUTE) * MINUTE + 30 * MINUTE).toISOString();
		const change = { date: opens.slice(0, 10), time: opens.slice(11, 16), until: null, rules };
		const id = await planMakeUp(this.house, change).catch(() => null);
		if (id !== null) this.sessions.push(id);
	}
}

/** What is left of the working time whatever closes here; null before it has begun. */
const left = (one: Loaded, now: number) => (one.sitting.beganAt === null ? null : ownRemaining(one.reckoning, now));

it('a journey over several sessions neither gives time twice nor loses it', async () => {
	await fc.assert(
		fc.asyncProperty(starts, stops, fc.array(STEPS, { minLength: 12, maxLength: 45 }), async (first, stop, steps) => {
			const house = await buildHouse({
				candidates: 2,
				closes: null,
				timing: { clockStarts: first, clockStops: stop, limitMinutes: 60, atClose: 'finish', lastEntryMinutes: null }
			});
			try {
				const journey = new Journey(house);
				for (const step of steps) {
					const before = await journey.one();
					const from = house.clock.at;
					await journey.step(step as Step);
					const after = await journey.one();
					const passed = house.clock.at - from;
					const [was, is] = [left(before, from), left(after, house.clock.at)];
					const { state, beganAt } = after.sitting;
					if (was !== null && is !== null) {
						if (!GRANTS.includes(step.kind)) expect(is, step.kind).toBeLessThanOrEqual(was);
						expect(is, step.kind).toBeGreaterThanOrEqual(Math.max(0, was - passed));
					}
					if (beganAt !== null) expect(['expected', 'absent'], step.kind).not.toContain(state);
					if (beganAt !== null && state === 'carried_over') expect(is).toBeGreaterThan(0);
					for (const id of journey.sessions) {
						const { ledger } = await accountFor(house.otium.db, (await findSession(house.otium.db, id))!);
						expect(ledger, step.kind).toMatchObject({ addsUp: true });
					}
				}
				await owedCanBeGiven(journey);
			} finally {
				await house.close();
			}
		}),
		{ numRuns: runs(25) }
	);
}, 240_000);

/** When every session has ended, whoever is absent or carried over is offered by the next one. */
async function owedCanBeGiven(journey: Journey) {
	const { otium } = journey.house;
	journey.house.clock.at += 300 * MINUTE;
	await sweep(otium);
	for (const id of journey.sessions) await endSession(otium, id, PROCTOR);
	// A hold keeps somebody from sitting anywhere until it is lifted.
	await journey.step({ kind: 'resume' } as Step);
	const { state } = (await journey.one()).sitting;
	const roster = await rosterFor(otium.db, {
		administrationId: 'winter',
		paperId: 'numbers',
		kind: 'make_up',
		groupIds: ['watch'],
		only: null,
		alsoIds: [],
		attempts: { most: 1, waitMinutes: 0, laterWaitMinutes: 0 },
		opens: otium.now()
	});
	const offered = roster.people.some((person) => person.candidateId === 'can0');
	expect({ state, offered }).toEqual({ state, offered: state === 'absent' || state === 'carried_over' });
	expect(['absent', 'carried_over', 'handed_in', 'time_up', 'set_aside']).toContain(state);
}
