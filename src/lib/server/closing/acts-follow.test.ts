import { nanoid } from 'nanoid';
import { afterEach, expect, it } from 'vitest';
import { DEFAULT_RULES } from '$core/session';
import type { Actor, CommandBody } from '$core/sitting';
import { MINUTE } from '$core/time';
import { tellIncident } from '../incidents';
import { endSession } from '../session';
import { act, begin, loadSitting } from '../sitting';
import {
	arriveAt,
	bringToWork,
	buildHouse,
	COORDINATOR,
	openDoor,
	PAPER,
	planMakeUp,
	PROCTOR,
	type House
} from '../testing/house';
import { satHouse } from '../testing/sat';
import { decideIncident, validityLines } from './index';

let house: House;
afterEach(() => house.close());
const pass = (minutes: number) => (house.clock.at += minutes * MINUTE);
const command = async (body: CommandBody, by: Actor = PROCTOR, i = 0) =>
	(await act(house.otium, [{ id: nanoid(), sittingId: `sit${i}`, by, body }]))[0];

/** An incident that names the first of the house. */
const tellOfFirst = () =>
	tellIncident(house.otium, PROCTOR, 's1', {
		id: 'inc-1',
		kind: 'conduct',
		happenedAt: house.clock.at,
		note: 'notes',
		done: '',
		minutes: 0,
		sittingIds: ['sit0'],
		attachment: null
	});

it('an incident that is decided anew: what no longer holds is undone, or the decision is refused', async () => {
	house = await satHouse(PAPER, 2, () => true);
	await tellOfFirst();
	await decideIncident(house.otium, COORDINATOR, 'inc-1', ['sit0'], 'set_aside', 'cheated');
	expect((await loadSitting(house.otium.db, 'sit0', house.clock.at))!.sitting.state).toBe('set_aside');
	house.clock.at += MINUTE;
	await decideIncident(house.otium, COORDINATOR, 'inc-1', ['sit0'], 'nothing', 'it was somebody else');
	expect((await loadSitting(house.otium.db, 'sit0', house.clock.at))!.sitting.state).toBe('handed_in');
});

it('an incident decided "set aside" of somebody who has not begun says that it could not be done', async () => {
	house = await buildHouse({});
	await tellOfFirst();
	const done = await decideIncident(house.otium, COORDINATOR, 'inc-1', ['sit0'], 'set_aside', 'cheated').then(
		() => 'decided',
		() => 'refused'
	);
	const { state } = (await loadSitting(house.otium.db, 'sit0', house.clock.at))!.sitting;
	expect([done, state]).not.toEqual(['decided', 'expected']);
});

it('time lost in a session that gave it back is not held against a result that went on in one that does not', async () => {
	house = await buildHouse({ timing: { clockStops: 'hold_or_lost', limitMinutes: 60, atClose: 'finish' } });
	await bringToWork(house, 0, await openDoor(house));
	pass(10);
	await command({ kind: 'lose_line', since: house.clock.at }, { role: 'system', id: 'line' });
	pass(12);
	await command({ kind: 'regain_line' }, { role: 'system', id: 'line' });
	pass(5);
	await endSession(house.otium, 's1', PROCTOR);
	const next = await planMakeUp(house, {
		time: '11:00',
		until: null,
		rules: { ...DEFAULT_RULES, timing: { ...DEFAULT_RULES.timing, clockStops: 'never' } }
	});
	house.sessionId = next;
	house.clock.at = Date.parse('2026-12-08T11:00:00Z');
	await arriveAt(house, 0, await openDoor(house), 'other');
	await command({ kind: 'let_in' });
	await begin(house.otium, 'sit0', nanoid(), '');
	pass(5);
	await command({ kind: 'hand_in', receipt: 'r', reason: null }, { role: 'candidate', id: 'can0' });
	const [line] = (await validityLines(house.otium.db, 'winter')).filter((l) => l.sittingId === 'sit0');
	expect(line.proposed).toMatchObject({ verdict: 'valid' });
});
