import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { noteLapses } from '$lib/server/lockdown';
import { loadSitting } from '$lib/server/sitting';
import { call } from '$lib/server/testing/call';
import { arriveAt, bringToWork, buildHouse, openDoor, type House } from '$lib/server/testing/house';
import { DEFAULT_RULES } from '$core/session';
import { POST as answers } from './answers/+server';
import { POST as begin } from './begin/+server';
import { POST as hand } from './hand/+server';
import { POST as lapses } from './lapses/+server';

let house: House;
beforeEach(async () => {
	house = await buildHouse({
		rules: { lockdown: { ...DEFAULT_RULES.lockdown, level: 'watched', onLeaving: 'hold', leavingsAllowed: 0 } }
	});
});
afterEach(() => house.close());

const ask = (handler: unknown, body: unknown, device: { sittingId: string; epoch: number }) =>
	call(handler as never, { otium: house.otium, body, device });
let seq = 0;
const revision = (questionId: string, value: unknown) => ({
	seq: ++seq,
	questionId,
	value,
	marked: false,
	struck: [],
	inViewMs: 10
});
const rows = async (table: string) => ((await house.otium.db(table).count('* as n').first()) as { n: number }).n;
const counted = (all: { status: number }[]) =>
	all.reduce<Record<number, number>>((sum, { status }) => ({ ...sum, [status]: (sum[status] ?? 0) + 1 }), {});

describe('one device can’t fill the house', () => {
	it.each(['notes', 'q1', 'elsewhere'])(
		'before it has begun, an answer to %s is refused and nothing is kept',
		async (questionId) => {
			const arrived = await arriveAt(house, 0, await openDoor(house));
			if (!arrived.ok) throw new Error(arrived.refusal.code);
			const { sittingId, epoch } = arrived.device;
			const before = await rows('logbook');
			const sent = { revisions: [revision(questionId, questionId === 'q1' ? true : 'x'.repeat(30_000))] };
			expect((await ask(answers, sent, { sittingId, epoch })).status).toBe(422);
			expect([await rows('answer'), await rows('logbook')]).toEqual([0, before]);
			// And the house's clockwork goes on.
			await house.otium.pace.sweep();
		}
	);

	it('with a body of more than 16 kB, where none is named: it is refused, and what is smaller is read', async () => {
		const device = { sittingId: 'sit0', epoch: await bringToWork(house, 0, await openDoor(house)) };
		const padded = (bytes: number) => ask(hand, { up: true, padding: 'x'.repeat(bytes) }, device);
		expect((await padded(16_500)).status).toBe(413);
		expect((await padded(200_000)).status).toBe(413);
		expect((await padded(15_000)).status).not.toBe(413);
	});

	it('with notes, with lapses of one kind, with hands: it is slowed down, and others are not', async () => {
		const code = await openDoor(house);
		const device = { sittingId: 'sit0', epoch: await bringToWork(house, 0, code) };
		const other = { sittingId: 'sit1', epoch: await bringToWork(house, 1, code) };
		const notes = (who: typeof device) =>
			ask(answers, { revisions: Array.from({ length: 25 }, () => revision('notes', 'x'.repeat(39_000))) }, who);
		const sent = await Promise.all(Array.from({ length: 20 }, () => notes(device)));
		expect(counted(sent)).toEqual({ 200: 8, 429: 12 });
		expect(Number(sent.find(({ status }) => status === 429)!.headers.get('retry-after'))).toBeLessThanOrEqual(60);
		expect((await notes(other)).status).toBe(200);

		const told = (kind: string, nth: number) => ({
			lapses: Array.from({ length: 100 }, (_, i) => ({ id: `lapse-${kind}-${nth}-${i}`, kind, from: 1, to: 2 }))
		});
		const before = await rows('logbook');
		const floods = await Promise.all([1, 2, 3, 4, 5].map((nth) => ask(lapses, told('menu', nth), device)));
		expect(counted(floods)).toEqual({ 200: 2, 429: 3 });
		expect((await rows('logbook')) - before).toBe(200);
		// What matters is told all the same: leaving the screen has a quota of its own.
		expect(
			(
				await ask(
					lapses,
					{ lapses: [{ id: 'really-left', kind: 'left', from: house.clock.at, to: house.clock.at }] },
					device
				)
			).status
		).toBe(200);
		expect((await loadSitting(house.otium.db, 'sit0', house.otium.now()))!.sitting.state).toBe('on_hold');

		const hands = await Promise.all(Array.from({ length: 70 }, (_, i) => ask(hand, { up: i % 2 === 0 }, other)));
		expect(counted(hands)).toEqual({ 200: 60, 429: 10 });
	});

	it('an id of its own choosing does not stand in the way of what the server will do by that id', async () => {
		const device = { sittingId: 'sit0', epoch: await bringToWork(house, 0, await openDoor(house)) };
		const { since } = (await loadSitting(house.otium.db, 'sit0', house.otium.now()))!.sitting;
		for (const commandId of [`left-sit0-${since}`, `system lockdown left-sit0-${since}`])
			await ask(begin, { commandId }, device);
		await noteLapses(house.otium, 'sit0', [
			{ id: 'left-the-screen', kind: 'left', from: house.clock.at, to: house.clock.at }
		]);
		expect((await loadSitting(house.otium.db, 'sit0', house.otium.now()))!.sitting.state).toBe('on_hold');
	});
});
