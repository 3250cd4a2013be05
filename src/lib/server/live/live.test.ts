import { nanoid } from 'nanoid';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { RoomChange, RoomPicture } from '$core/room';
import { MINUTE } from '$core/time';
import { giveGrant, withdrawGrant } from '../grants';
import { act, loadSitting } from '../sitting';
import { arriveAt, bringToWork, buildHouse, COORDINATOR, NINE, openDoor, PROCTOR, type House } from '../testing/house';
import { turnsDuring } from '../testing/turns';
import { Channel, frameOf, pictureFrame } from './channel';
import { drawForPage, drawRoom, MOST_IN_PAGE } from './room-picture';

let house: House;
beforeEach(async () => {
	house = await buildHouse();
});
afterEach(() => house.close());

type Frame = { id?: string; event: string; data: RoomPicture & RoomChange };

/** Reads a stream as a browser would. */
function listen(stream: ReadableStream<Uint8Array>) {
	const reader = stream.getReader();
	const decoder = new TextDecoder();
	let rest = '';
	const frames: Frame[] = [];
	return {
		async next(event: string): Promise<Frame> {
			for (;;) {
				const at = frames.findIndex((frame) => frame.event === event);
				if (at >= 0) return frames.splice(0, at + 1)[at];
				const { value, done } = await reader.read();
				if (done) throw new Error('the line was closed');
				rest += decoder.decode(value);
				const parts = rest.split('\n\n');
				rest = parts.pop()!;
				for (const part of parts) {
					const fields = Object.fromEntries(
						part.split('\n').map((line) => [line.slice(0, line.indexOf(':')), line.slice(line.indexOf(':') + 2)])
					);
					frames.push({ id: fields.id, event: fields.event, data: JSON.parse(fields.data) });
				}
			}
		},
		close: () => reader.cancel()
	};
}

describe('a large room', () => {
	const LARGE = 2 * MOST_IN_PAGE;
	beforeEach(async () => {
		await house.close();
		house = await buildHouse({ candidates: LARGE });
	});

	it('comes by its line while everybody else has their turn, and whole', async () => {
		const { otium } = house;
		const turns = await turnsDuring(async () => {
			const line = listen((await otium.hub.watchRoom('s1', null))!);
			const { data } = await line.next('picture');
			expect(data).toEqual({ now: otium.now(), ...(await drawRoom(otium.db, 's1', otium.now())) });
			expect(data.seats).toHaveLength(LARGE);
			await line.close();
		});
		expect(turns).toBeGreaterThanOrEqual(3);
	});

	it('is in a page with its head alone, a small one with its seats', async () => {
		const drawn = (most?: number) => drawForPage(house.otium, 's1', house.otium.now(), most);
		expect(await drawn()).toMatchObject({ isComing: true, picture: { head: { expected: LARGE }, seats: [] } });
		const whole = (await drawn(LARGE))!;
		expect([whole.isComing, whole.picture.seats.length]).toEqual([false, LARGE]);
		expect(await drawForPage(house.otium, 'nowhere', 0)).toBeNull();
	});

	it('is written in parts as it would be in one', async () => {
		const { picture } = (await drawForPage(house.otium, 's1', house.otium.now(), LARGE))!;
		for (const seats of [picture.seats, picture.seats.slice(0, 1), []]) {
			const { data, bytes } = await pictureFrame({ ...picture, seats }, 'a-1');
			expect(JSON.parse(data)).toEqual({ ...picture, seats });
			expect(new TextDecoder().decode(bytes)).toBe(`id: a-1\nevent: picture\ndata: ${data}\n\n`);
		}
		expect((await pictureFrame(picture)).data).toHaveLength(frameOf('picture', picture).data.length);
	});
});

describe('the live room', () => {
	it('gives the picture first, then only what changed, to every watcher', async () => {
		const code = await openDoor(house);
		const [one, two] = await Promise.all(
			[0, 1].map(async () => listen((await house.otium.hub.watchRoom('s1', null))!))
		);
		expect((await one.next('picture')).data.seats).toHaveLength(3);
		await two.next('picture');
		await arriveAt(house, 1, code);
		for (const line of [one, two]) {
			const change = await line.next('change');
			expect(change.data.seats.map((seat) => [seat.id, seat.state])).toEqual([['sit1', 'at_door']]);
			await line.close();
		}
	});

	it('tells who comes back what they missed, and draws the picture anew after a restart', async () => {
		const code = await openDoor(house);
		const line = listen((await house.otium.hub.watchRoom('s1', null))!);
		const picture = await line.next('picture');
		await line.close();
		await arriveAt(house, 0, code);
		await new Promise((resolve) => setTimeout(resolve, 150));
		const back = listen((await house.otium.hub.watchRoom('s1', picture.id!))!);
		expect((await back.next('change')).data.seats[0]).toMatchObject({ id: 'sit0', state: 'at_door' });
		await back.close();
		const otium = await house.restart();
		const anew = listen((await otium.hub.watchRoom('s1', picture.id!))!);
		expect((await anew.next('picture')).data.seats).toHaveLength(3);
		await anew.close();
	});

	it('shows a grant in the room by itself, and takes it back', async () => {
		await bringToWork(house, 0, await openDoor(house));
		const line = listen((await house.otium.hub.watchRoom('s1', null))!);
		const before = (await line.next('picture')).data.seats[0];
		const scope = { kind: 'session', id: 's1' } as const;
		const grant = {
			candidateId: 'can0',
			scope,
			body: { kind: 'extra_time', factor: 1, minutes: 10 } as const,
			reason: 'asked',
			givenBy: 'ode',
			givenAt: NINE
		};
		await giveGrant(house.otium, COORDINATOR, 'grant-one', grant);
		await giveGrant(house.otium, COORDINATOR, 'grant-one', grant);
		const after = (await line.next('change')).data.seats[0];
		expect(after).toMatchObject({ extra: '+10', deadline: before.deadline! + 10 * MINUTE });
		expect(await withdrawGrant(house.otium, COORDINATOR, 'grant-one')).toBe(true);
		expect(await withdrawGrant(house.otium, COORDINATOR, 'grant-one')).toBe(false);
		expect((await line.next('change')).data.seats[0].deadline).toBe(before.deadline);
		await line.close();
	});

	it('tells nobody of what was not committed', async () => {
		const line = listen((await house.otium.hub.watchRoom('s1', null))!);
		await line.next('picture');
		await act(house.otium, [{ id: nanoid(), sittingId: 'sit0', by: PROCTOR, body: { kind: 'let_in' } }]);
		await act(house.otium, [{ id: nanoid(), sittingId: 'sit2', by: PROCTOR, body: { kind: 'mark_absent' } }]);
		expect((await line.next('change')).data.seats.map((seat) => seat.id)).toEqual(['sit2']);
		await line.close();
	});
});

describe('a wall of rooms', () => {
	it('tells of several rooms on one line, each event named after its room, and leaves no tap open', async () => {
		const code = await openDoor(house);
		await house.otium.db('session').insert({
			...(await house.otium.db('session').where({ id: 's1' }).first()),
			id: 's2',
			door_code: null
		});
		const line = listen(await house.otium.hub.watchRooms(['s1', 's2', 'nowhere']));
		expect((await line.next('picture:s1')).data.seats).toHaveLength(3);
		expect((await line.next('picture:s2')).data.seats).toHaveLength(0);
		await arriveAt(house, 0, code);
		const change = await line.next('change:s1');
		expect(change.data.seats[0]).toMatchObject({ id: 'sit0', state: 'at_door' });
		expect(change.id).toBeUndefined();
		await line.close();
		// Nobody listens any more: a change is drawn for nobody and nothing fails.
		await arriveAt(house, 1, code);
	});
});

describe('a channel', () => {
	it('knows gaps that are too long to tell', () => {
		const channel = new Channel('boot');
		const start = channel.position;
		for (let i = 0; i < 3; i++) channel.publish('change', i);
		expect(channel.since(start)).toHaveLength(3);
		for (let i = 0; i < 600; i++) channel.publish('change', i);
		expect(channel.since(start)).toBeNull();
		expect(channel.since('other-3')).toBeNull();
		expect(channel.since('boot-99999')).toBeNull();
		expect(channel.since(null)).toBeNull();
	});
});

describe('presence', () => {
	const line = async () => (await loadSitting(house.otium.db, 'sit0', house.otium.now()))!.sitting.line;
	const settle = () => new Promise((resolve) => setTimeout(resolve, 150));

	it('counts a line as lost since it was last heard, and back when it is heard again', async () => {
		await bringToWork(house, 0, await openDoor(house));
		const heard = house.clock.at;
		await settle();
		house.clock.at += 10_000;
		await house.otium.presence.sweep();
		expect(await line()).toMatchObject({ up: true });
		house.clock.at += 6_000;
		await house.otium.presence.sweep();
		expect(await line()).toEqual({ up: false, since: heard });
		house.clock.at += 60_000;
		house.otium.presence.seen('sit0');
		await settle();
		expect(await line()).toEqual({ up: true, since: house.clock.at });
	});

	it('takes no line for lost because the server itself was held up', async () => {
		await bringToWork(house, 0, await openDoor(house));
		await settle();
		const running = vi.spyOn(performance, 'now');
		running.mockReturnValue(1_000_000);
		await house.otium.presence.sweep();
		house.clock.at += 20_000;
		running.mockReturnValue(1_020_000);
		await house.otium.presence.sweep();
		expect(await line()).toMatchObject({ up: true });
		// Given two beats' time to be heard, and silent still: now it is lost.
		for (let second = 1; second <= 12; second++) {
			house.clock.at += 1_000;
			running.mockReturnValue(1_020_000 + second * 1_000);
			await house.otium.presence.sweep();
		}
		running.mockRestore();
		expect(await line()).toMatchObject({ up: false });
	});

	it('lets a full house beat more slowly, never more than 200 beats a second, and waits for three of them', async () => {
		await bringToWork(house, 0, await openDoor(house));
		const { presence } = house.otium;
		expect(presence.beatMs).toBe(5_000);
		for (let i = 0; i < 1_999; i++) presence.seen(`elsewhere-${i}`);
		expect(presence.beatMs).toBe(10_000);
		expect(2_000 / (presence.beatMs / 1_000)).toBe(200);
		await settle();
		house.clock.at += 29_000;
		await presence.sweep();
		expect(await line()).toMatchObject({ up: true });
		house.clock.at += 2_000;
		await presence.sweep();
		expect(await line()).toMatchObject({ up: false });
	});

	it('after a power cut knows since when the server was not there', async () => {
		await bringToWork(house, 0, await openDoor(house));
		await settle();
		house.clock.at += 4_000;
		await house.otium.presence.noteAlive();
		const alive = house.clock.at;
		house.clock.at += 5 * MINUTE;
		await house.restart();
		expect(await line()).toEqual({ up: false, since: alive });
	});
});

describe('what nobody watches', () => {
	/** Statements that are run while something happens. */
	async function queriesOf(work: () => Promise<unknown>, ms = 200): Promise<number> {
		let queries = 0;
		const count = () => queries++;
		house.otium.db.on('query', count);
		await work();
		await new Promise((resolve) => setTimeout(resolve, ms));
		house.otium.db.removeListener('query', count);
		return queries;
	}

	it('is not drawn, and what changed meanwhile comes with the next watcher', async () => {
		const line = listen((await house.otium.hub.watchRoom('s1', null))!);
		const picture = await line.next('picture');
		await line.close();
		expect(await queriesOf(async () => house.otium.hub.changed('s1', ['sit0']))).toBe(0);
		const back = listen((await house.otium.hub.watchRoom('s1', picture.id!))!);
		expect((await back.next('change')).data.seats[0].id).toBe('sit0');
		await back.close();
	});

	it('costs little when watched: one change eight statements, a new code five, and no candidate is drawn for it', async () => {
		const line = listen((await house.otium.hub.watchRoom('s1', null))!);
		await line.next('picture');
		const candidate = listen(await house.otium.hub.watchSitting('sit1'));
		await candidate.next('picture');
		expect(await queriesOf(async () => house.otium.hub.changed('s1', ['sit0']))).toBeLessThanOrEqual(8);
		expect(await queriesOf(async () => house.otium.hub.changed('s1'))).toBeLessThanOrEqual(5);
		await line.close();
		await candidate.close();
	});

	it('lets everything else have its turn while a wall of rooms is drawn', async () => {
		const base = await house.otium.db('session').where({ id: 's1' }).first();
		const ids = Array.from({ length: 12 }, (_, i) => `w${i}`);
		for (const id of ids) {
			await house.otium.db('session').insert({ ...base, id, door_code: null });
			await house.otium.db('roster').insert(house.people.map((one) => ({ session_id: id, sitting_id: one.sittingId })));
		}
		let turns = 0;
		let isOn = true;
		const turn = () => {
			turns++;
			if (isOn) setImmediate(turn);
		};
		setImmediate(turn);
		const wall = await house.otium.hub.watchRooms(ids);
		isOn = false;
		await wall.cancel();
		expect(turns).toBeGreaterThanOrEqual(ids.length);
	});
});

describe('a room that can’t be drawn', () => {
	it('is tried again, each time after a longer pause, told once in the log, and loses no change', async () => {
		const { otium } = house;
		const code = await openDoor(house);
		const line = listen((await otium.hub.watchRoom('s1', null))!);
		await line.next('picture');
		const pauses: number[] = [];
		const wait = globalThis.setTimeout;
		const errors = vi.spyOn(otium.log, 'error').mockImplementation(() => {});
		vi.spyOn(globalThis, 'setTimeout').mockImplementation(((work: () => void, ms = 0) => {
			const isPause = ms >= 500 && ms <= 15_000;
			if (isPause) pauses.push(ms);
			return wait(work, isPause ? 5 : ms);
		}) as typeof setTimeout);
		// The file is taken away from under the lists: every picture fails until it is back.
		await otium.db.schema.renameTable('message', 'message_away');
		await arriveAt(house, 0, code);
		await vi.waitFor(() => expect(pauses.length).toBeGreaterThan(4));
		await otium.db.schema.renameTable('message_away', 'message');
		const change = await line.next('change');
		vi.restoreAllMocks();
		expect(change.data.seats.map((seat) => [seat.id, seat.state])).toContainEqual(['sit0', 'at_door']);
		expect(pauses.slice(0, 5)).toEqual([1_000, 2_000, 4_000, 8_000, 15_000]);
		expect(errors.mock.calls.filter(([, words]) => String(words).includes('tried again'))).toHaveLength(1);
		await line.close();
	});
});

describe('a change while a line opens', () => {
	it('reaches whoever opens it, also when the picture is drawn before', async () => {
		const code = await openDoor(house);
		await arriveAt(house, 0, code);
		const [stream] = await Promise.all([
			house.otium.hub.watchSitting('sit0'),
			act(house.otium, [{ id: nanoid(), sittingId: 'sit0', by: PROCTOR, body: { kind: 'let_in' } }])
		]);
		const line = listen(stream);
		await vi.waitFor(async () => {
			const { data } = await line.next('picture');
			expect((data as unknown as { state: string }).state).toBe('let_in');
		});
		await line.close();
	});
});

describe('a line', () => {
	const line = async (i = 0) => (await loadSitting(house.otium.db, `sit${i}`, house.clock.at))!.sitting.line;

	it('that could not be written as lost is written by a later sweep', async () => {
		await bringToWork(house, 0, await openDoor(house));
		await house.otium.db.raw(
			"CREATE TRIGGER stuck BEFORE INSERT ON logbook BEGIN SELECT RAISE(ABORT, 'the disk is full'); END"
		);
		house.clock.at += 20_000;
		await house.otium.presence.sweep();
		await house.otium.db.raw('DROP TRIGGER stuck');
		house.clock.at += 1_000;
		await house.otium.presence.sweep();
		expect(await line()).toMatchObject({ up: false, since: NINE });
	});

	it('is not lost when an old stream closes after the new one has opened, in a full house either', async () => {
		await bringToWork(house, 0, await openDoor(house));
		const { presence } = house.otium;
		for (let i = 0; i < 1_999; i++) presence.bound(`elsewhere-${i}`);
		presence.streamOpened('sit0');
		presence.streamOpened('sit0');
		presence.streamClosed('sit0');
		house.clock.at += 13_000;
		await presence.sweep();
		expect(await line()).toMatchObject({ up: true });
		presence.streamClosed('sit0');
		house.clock.at += 13_000;
		await presence.sweep();
		expect(await line()).toMatchObject({ up: false });
	});
});
