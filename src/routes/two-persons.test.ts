import { mkdirSync, readdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { SUPERVISING_ENTRIES } from '$core/closing';
import { call } from '$lib/server/testing/call';
import type { House } from '$lib/server/testing/house';
import { COORDINATOR } from '$lib/server/testing/house';
import { HOLT, LORNE, ODE, satHouse, SMALL_PAPER } from '$lib/server/testing/sat';
import { POST as archive } from './(staff)/close-out/archive/+server';
import { archivesIn } from '$lib/server/archive';
import { noteBrowser, sharedBy } from '$lib/server/identity';
import { appendToLogbook, searchLogbook } from '$lib/server/logbook';
import {
	confirm,
	foresee,
	giveMark,
	labelOf,
	propose,
	savePlan,
	takeMarkBack,
	workOfMarker
} from '$lib/server/marking';
import { callBack, releaseResults } from '$lib/server/results';
import { findSession, handOver } from '$lib/server/session';
import { closable, close, decideAddendum, proposeAddendum, signOff } from '$lib/server/closing';

vi.setConfig({ testTimeout: 60_000 });
let house: House;
afterEach(() => house.close());
const sat = async (candidates = 2, change = {}) =>
	(house = await satHouse(SMALL_PAPER, candidates, (_, id) => (id === 'c1' ? false : 'Because.'), { change }));
const by = (one: { id: string; roles: { role: string }[] }) => ({ role: one.roles[0].role, id: one.id }) as never;
const of = { administrationId: 'winter', paperId: 'numbers', questionId: 'c1' };
/** One person marks the essays. */
const planOne = () =>
	savePlan(
		house.otium,
		COORDINATOR,
		{ ...of, questionId: 'e1' },
		{ markers: [{ id: 'holt', share: 1 }], secondPercent: 0, tolerance: 0, rubric: [] },
		0
	);
const KEY = { kind: 'key', answer: false } as never;

describe('whoever supervised does not close alone', () => {
	/** Marked and signed: nothing else is in the way. */
	async function ready() {
		await sat();
		const asked = { ...of, questionId: 'e1' };
		await planOne();
		for (const { key } of (await workOfMarker(house.otium.db, 'holt', asked)).queue)
			await giveMark(house.otium, by(HOLT), asked, {
				id: key.slice(-20),
				key,
				points: 2,
				criteria: {},
				comment: '',
				tookMs: 1
			});
		await signOff(house.otium, ODE, by(ODE), 'winter', 'quayside');
	}

	it('also where their name has been taken off the session since: what they did stands in the record', async () => {
		await ready();
		const session = (await findSession(house.otium.db, 's1'))!;
		await house.otium.db('staff_role').insert({ staff_id: 'lorne', role: 'proctor', site_id: null });
		await house.otium.db('staff_role').insert({ staff_id: 'dunmore', role: 'proctor', site_id: null });
		await house.otium.db('session_proctor').insert({ session_id: 's1', staff_id: 'lorne' });
		expect((await closable(house.otium, LORNE, 'winter')).needsSecond).toBe(true);
		await handOver(house.otium, { role: 'proctor', id: 'lorne' }, session, {
			staffId: 'dunmore',
			note: '',
			stays: false
		});
		expect(await house.otium.db('session_proctor').where({ staff_id: 'lorne' })).toEqual([]);
		const { needsSecond, basis } = await closable(house.otium, LORNE, 'winter');
		expect(needsSecond).toBe(true);
		expect(await close(house.otium, LORNE, by(LORNE), 'winter', basis)).toEqual({ state: 'waits' });
	});

	it.each(SUPERVISING_ENTRIES)('whatever it was that they did there: %s', async (kind) => {
		await ready();
		expect((await closable(house.otium, LORNE, 'winter')).needsSecond).toBe(false);
		const entry = {
			at: house.otium.now(),
			by: { role: 'proctor', id: 'lorne' } as const,
			kind,
			sessionId: 's1',
			body: {}
		};
		await house.otium.db.transaction((trx) => appendToLogbook(trx, [entry]));
		expect((await closable(house.otium, LORNE, 'winter')).needsSecond).toBe(true);
	});

	it('and the first of two counts only while they may close', async () => {
		await ready();
		const entry = {
			at: house.otium.now(),
			by: { role: 'proctor', id: 'lorne' } as const,
			kind: 'held',
			sessionId: 's1',
			body: {}
		};
		await house.otium.db.transaction((trx) => appendToLogbook(trx, [entry]));
		const first = await closable(house.otium, LORNE, 'winter');
		await close(house.otium, LORNE, by(LORNE), 'winter', first.basis);
		expect((await closable(house.otium, ODE, 'winter')).waitsForSecond).toMatchObject({ by: 'Petra Lorne' });
		await house.otium.db('staff_role').where({ staff_id: 'lorne' }).delete();
		expect((await closable(house.otium, ODE, 'winter')).waitsForSecond).toBeNull();
	});
});

describe('what takes two is refused to one', () => {
	it('a correction: whoever proposed it does not confirm it, as whatever they come', async () => {
		await sat();
		await propose(house.otium, by(ODE), 'correction-1', of, KEY, 'The key was wrong');
		const { basis } = await foresee(house.otium, of, KEY);
		for (const role of ['coordinator', 'author', 'closing_officer', 'system'] as const)
			await expect(confirm(house.otium, { role, id: 'ode' } as never, 'correction-1', basis)).rejects.toMatchObject({
				status: 422
			});
		await confirm(house.otium, by(LORNE), 'correction-1', basis);
		await expect(confirm(house.otium, by(LORNE), 'correction-1', basis)).rejects.toMatchObject({ status: 422 });
	});

	it('a second mark: nobody marks the same answer twice', async () => {
		await sat(1);
		const asked = { ...of, questionId: 'e1' };
		const markers = ['holt', 'reed'].map((id) => ({ id, share: 1 }));
		await savePlan(house.otium, COORDINATOR, asked, { markers, secondPercent: 100, tolerance: 0, rubric: [] }, 0);
		const queues = await Promise.all(['holt', 'reed'].map((id) => workOfMarker(house.otium.db, id, asked)));
		const first = queues[0].queue.length > 0 ? 'holt' : 'reed';
		const { key } = queues.flatMap(({ queue }) => queue)[0];
		const mark = (id: string, marker: string) =>
			giveMark(house.otium, { role: 'marker', id: marker } as never, asked, {
				id,
				key,
				points: 2,
				criteria: {},
				comment: '',
				tookMs: 1
			});
		await mark('mark-1', first);
		await expect(mark('mark-2', first)).rejects.toMatchObject({ status: 422 });
		await mark('mark-3', first === 'holt' ? 'reed' : 'holt');
		expect(await house.otium.db('hand_mark').distinct('marker')).toHaveLength(2);
	});

	it('a mark whose result has been released: its marker alone does not take it back', async () => {
		await sat(1);
		const asked = { ...of, questionId: 'e1' };
		await planOne();
		const [{ key }] = (await workOfMarker(house.otium.db, 'holt', asked)).queue;
		const mark = { id: 'mark-1', key, points: 2, criteria: {}, comment: '', tookMs: 1 };
		await giveMark(house.otium, by(HOLT), asked, mark);
		const release = { administrationId: 'winter', paperId: 'numbers', rule: { shows: 'points' as const } };
		await releaseResults(house.otium, by(LORNE), {
			...release,
			id: 'release-1',
			fromAt: house.otium.now() + 60_000,
			origin: 'http://x'
		});
		await expect(takeMarkBack(house.otium, by(HOLT), 'mark-1', null)).rejects.toMatchObject({ status: 422 });
		await callBack(house.otium, by(LORNE), 'release-1');
		await takeMarkBack(house.otium, by(HOLT), 'mark-1', null);
		expect(await house.otium.db('hand_mark').whereNull('taken_back_at')).toEqual([]);
	});

	it('an addendum: another confirms it, once; its file is named by the house, and neither of two at once writes over the other', async () => {
		await sat();
		await house.otium.db('closing').insert({
			administration_id: 'winter',
			at: 1,
			by: 'lorne',
			archive: 'x',
			sha256: 'x',
			bytes: 1,
			counts: '{}',
			head: 'x'
		});
		mkdirSync(archivesIn(house.dir), { recursive: true });
		const asked = { administrationId: 'winter', number: null, text: 'Found later' };
		for (const id of [
			'../attacked',
			'./good-one',
			'../../audit/written',
			'a/b/c/d/e/f',
			'x'.repeat(8) + '/..',
			'........'
		]) {
			const sent = { otium: house.otium, staff: ODE, body: { act: 'propose', id, ...asked } };
			expect((await call(archive as never, sent)).status, id).toBe(400);
			// Also what lies there from before has no say in where it is written.
			await proposeAddendum(house.otium, by(ODE), { id, ...asked });
			await expect(decideAddendum(house.otium, by(ODE), id, true)).rejects.toMatchObject({ status: 422 });
			const both = await Promise.allSettled([1, 2].map(() => decideAddendum(house.otium, by(LORNE), id, true)));
			expect(
				both.filter((one) => one.status === 'fulfilled'),
				id
			).toHaveLength(1);
		}
		const files = readdirSync(archivesIn(house.dir));
		expect(files.every((name) => /^addendum-[\w-]{21}\.json$/.test(name))).toBe(true);
		expect(files).toHaveLength(6);
		expect((await house.otium.db('addendum').pluck('file')).sort()).toEqual(files.sort());
		expect(readdirSync(join(dirname(archivesIn(house.dir))))).not.toContain('attacked.json');
	});
});

describe('one person with two accounts', () => {
	it('is told to whoever reads the record, by the address or the browser that they share', async () => {
		await sat();
		const { db } = house.otium;
		expect(await sharedBy(db, 'ode', 'lorne')).toEqual([]);
		await db('staff').where({ id: 'ode' }).update({ email: 'Maren@saltmarsh.example' });
		await db('staff').where({ id: 'lorne' }).update({ email: 'maren@saltmarsh.example ' });
		await noteBrowser(db, 'ode', 'browser-1', 1);
		await noteBrowser(db, 'lorne', 'browser-2', 1);
		expect(await sharedBy(db, 'ode', 'lorne')).toEqual(['email']);
		await noteBrowser(db, 'lorne', 'browser-1', 2);
		await propose(house.otium, by(ODE), 'correction-2', of, KEY, 'x');
		await confirm(house.otium, by(LORNE), 'correction-2', (await foresee(house.otium, of, KEY)).basis);
		const [line] = await searchLogbook(db, { text: 'correction_confirmed' });
		expect(line.body.shares).toEqual(['email', 'browser']);
	});
});

it('a marker’s label and order can’t be worked out from the ids that a proctor’s page shows', async () => {
	await sat(12);
	const asked = { ...of, questionId: 'e1' };
	await planOne();
	const { queue } = await workOfMarker(house.otium.db, 'holt', asked);
	const labels = queue.map(({ label }) => label);
	expect(new Set(labels).size).toBe(12);
	expect(labels.every((label) => /^[0-9A-Z]{5}$/.test(label))).toBe(true);
	// The same for everyone in this house, and others in another: they hang on its key.
	expect(labels.toSorted()).toEqual(
		house.people.map(({ sittingId }) => labelOf(house.otium.db, sittingId, 'e1')).toSorted()
	);
	const first = house;
	await sat(12, { ownKey: true });
	await planOne();
	const other = (await workOfMarker(house.otium.db, 'holt', asked)).queue.map(({ label }) => label);
	expect(other.filter((label) => labels.includes(label))).toEqual([]);
	await first.close();
});
