import 'fake-indexeddb/auto';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Leftovers } from '$player/leftovers.svelte';
import { LocalStore } from '$player/local-store';
import { heldBack } from '$lib/server/answers';
import { paperKey } from '$lib/server/identity';
import { endSession } from '$lib/server/session';
import { act } from '$lib/server/sitting';
import { call } from '$lib/server/testing/call';
import {
	arriveAt,
	bringToWork,
	buildHouse,
	nameOnDevice,
	openDoor,
	PROCTOR,
	type House
} from '$lib/server/testing/house';
import { POST } from './leftovers/+server';

let house: House;
let signedIn: { sittingId: string; epoch: number } | null;
let requests: number;
beforeEach(() => {
	signedIn = null;
	requests = 0;
	vi.stubGlobal('addEventListener', () => {});
	vi.stubGlobal('removeEventListener', () => {});
	vi.stubGlobal('fetch', async (_: string, init: RequestInit) => {
		requests++;
		const body = JSON.parse(init.body as string);
		const answer = await call(POST, { otium: house.otium, device: signedIn ?? undefined, body });
		return new Response(JSON.stringify(answer.body), { status: answer.status });
	});
});
afterEach(async () => {
	vi.unstubAllGlobals();
	await house.close();
	await new Promise((gone) => (indexedDB.deleteDatabase('otium-player').onsuccess = gone));
});

const content = (questionId: string, value: unknown = true, i = 0) => ({
	questionId: nameOnDevice(house, `sit${i}`, questionId),
	value: value as boolean,
	marked: false,
	struck: [],
	inViewMs: 5
});

/** What a device of this number had kept, under the key that the server gave it. */
async function keeps(epoch: number, i = 0, question = 'q1', key?: string | null) {
	const sittingId = `sit${i}`;
	const given = key === undefined ? await paperKey(house.otium.db, sittingId, epoch) : key;
	const store = await LocalStore.open(given);
	await store.add({ sittingId, epoch }, content(question, true, i));
}
async function flush(live: { sittingId: string; epoch: number } | null = null) {
	const leftovers = new Leftovers(() => live);
	await leftovers.flush();
	return { kept: leftovers.kept, left: (await (await LocalStore.open()).leftovers()).length };
}
const answers = (i = 0) =>
	house.otium
		.db('answer')
		.where({ sitting_id: `sit${i}` })
		.select('epoch', 'kept_because');

describe('what earlier lives of a device had kept', () => {
	it('arrives after the same machine was freed and has signed in anew, and a person decides about it', async () => {
		house = await buildHouse();
		const code = await openDoor(house);
		await bringToWork(house, 0, code);
		await act(house.otium, [{ id: 'free-it', sittingId: 'sit0', by: PROCTOR, body: { kind: 'move_device' } }]);
		await arriveAt(house, 0, code, 'device0');
		await keeps(1);
		signedIn = { sittingId: 'sit0', epoch: 2 };
		expect(await flush({ sittingId: 'sit0', epoch: 2 })).toEqual({ kept: 1, left: 0 });
		expect(await answers()).toEqual([{ epoch: 1, kept_because: 'freed_device' }]);
		expect((await heldBack(house.otium.db, ['sit0'])).get('sit0')?.count).toBe(1);
	});

	it('arrives when the lid is opened after the end, held back and told', async () => {
		house = await buildHouse();
		await bringToWork(house, 0, await openDoor(house));
		await keeps(1);
		await endSession(house.otium, 's1', PROCTOR);
		signedIn = { sittingId: 'sit0', epoch: 1 };
		expect(await flush()).toEqual({ kept: 1, left: 0 });
		expect(await answers()).toEqual([{ epoch: 1, kept_because: 'after_end' }]);
		expect(await house.otium.db('logbook').where({ kind: 'answers_kept' })).toHaveLength(1);
	});

	it('arrives from somebody who sat at the machine before, and waits for a person while nobody shows whose it is', async () => {
		house = await buildHouse();
		const code = await openDoor(house);
		await bringToWork(house, 0, code);
		await bringToWork(house, 1, code);
		await keeps(1, 1);
		expect(await flush()).toEqual({ kept: 0, left: 0 });
		expect(await answers(1)).toEqual([{ epoch: 1, kept_because: 'unproven' }]);
		expect((await heldBack(house.otium.db, ['sit1'])).get('sit1')?.count).toBe(1);
		// On the device that it was sealed on it counts like any other: it is still at work.
		await keeps(1, 1, 'q2');
		signedIn = { sittingId: 'sit1', epoch: 1 };
		expect(await flush()).toEqual({ kept: 0, left: 0 });
		expect((await answers(1))[1]).toEqual({ epoch: 1, kept_because: null });
	});

	it('is left to the outbox of the paper that is at work', async () => {
		house = await buildHouse();
		await bringToWork(house, 0, await openDoor(house));
		await keeps(1);
		expect(await flush({ sittingId: 'sit0', epoch: 1 })).toEqual({ kept: 0, left: 1 });
		expect(requests).toBe(0);
	});

	it('is refused when another key sealed it, or none where nobody is signed in, and blocks nothing', async () => {
		house = await buildHouse();
		await bringToWork(house, 0, await openDoor(house));
		await keeps(1, 0, 'q1', btoa('x'.repeat(32)));
		await keeps(1, 0, 'q2', null);
		await keeps(1, 0, 'no such question');
		await keeps(1, 0, 'q3');
		expect(await flush()).toEqual({ kept: 0, left: 3 });
		expect(await house.otium.db('answer').pluck('question_id')).toEqual(['q3']);
		signedIn = { sittingId: 'sit1', epoch: 1 };
		await flush();
		expect(await house.otium.db('answer').pluck('question_id')).toEqual(['q3']);
		// Without cryptography in the browser: only for the sitting that the device is signed in to.
		signedIn = { sittingId: 'sit0', epoch: 1 };
		await flush();
		expect(await house.otium.db('answer').pluck('question_id')).toEqual(['q3', 'q2']);
	});
});
