import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { parse } from 'csv-parse/sync';
import { strFromU8, unzipSync } from 'fflate';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Paper } from '$core/paper';
import { archivesIn, isSealOf, readKey, verifyArchive, withoutNames } from '../archive';
import { waive, owedAmong } from '../owed';
import {
	confirm,
	correctionsOf,
	figures,
	figuresElsewhere,
	foresee,
	giveMark,
	handProgress,
	propose,
	savePlan,
	takeMarkBack,
	workOfMarker
} from '../marking';
import { satHouse, HOLT, LORNE, ODE } from '../testing/sat';
import type { House } from '../testing/house';
import {
	addendaOf,
	closable,
	close,
	closingOf,
	decideAddendum,
	decideIncident,
	decideValidity,
	proposeAddendum,
	readBeneath,
	signOff,
	standingOf
} from '.';
import { tellIncident } from '../incidents';
import { withdrawVersion } from '../paper';
import { COORDINATOR, PROCTOR } from '../testing/house';

// The first to ask a thread waits until it has started, which a busy machine takes seconds for.
vi.setConfig({ testTimeout: 60_000 });

/** Ten single choices and an essay; the key of the first is wrong. */
const PAPER: Paper = {
	title: 'Coastal Navigation',
	parts: [
		{
			title: 'All',
			draw: null,
			questions: [
				...Array.from({ length: 10 }, (_, i) => ({
					id: `c${i}`,
					kind: 'single' as const,
					stem: `Which is ${i}?`,
					points: 1,
					topic: 'Buoys',
					choices: ['a', 'b', 'c', 'd'].map((id) => ({ id, text: id })),
					answer: i === 0 ? 'd' : 'a'
				})),
				{ id: 'essay', kind: 'essay', stem: 'Why?', points: 4, topic: 'Buoys', words: null }
			]
		}
	]
};
const OF = { administrationId: 'winter', paperId: 'numbers' };
/** The able have all right, and take `a` in the first as well. */
const answer = (i: number, id: string) =>
	id === 'essay' ? `Because of ${i}.` : id === 'c0' ? (i < 8 ? 'a' : 'd') : Number(id.slice(1)) > 12 - i ? 'b' : 'a';

let house: House;
afterEach(() => house.close());
const by = (staff: { id: string }) => ({ role: 'coordinator' as const, id: staff.id });
const open = async () =>
	(await standingOf(house.otium, 'winter', LORNE))!.gates
		.filter(({ isSettled }) => !isSettled)
		.map(({ key, words }) => `${key}: ${words}`);

/** Everything that stands before the closing, settled by those who may. */
async function settle() {
	const { otium } = house;
	await waive(otium, COORDINATOR, await owedAmong(otium.db, ODE, ['sit11'], otium.now()), 'left the college');
	await decideIncident(otium, COORDINATOR, 'fire-alarm', ['sit0', 'sit1'], 'nothing', 'a drill');
	await propose(
		otium,
		by(ODE),
		'corr-1',
		{ ...OF, questionId: 'c0' },
		{ kind: 'key', answer: 'a' },
		'the key was wrong'
	);
	const { basis } = await foresee(otium, { ...OF, questionId: 'c0' }, { kind: 'key', answer: 'a' });
	await confirm(otium, by(LORNE), 'corr-1', basis);
	await savePlan(
		otium,
		by(ODE),
		{ ...OF, questionId: 'essay' },
		{ markers: [{ id: 'holt', share: 1 }], secondPercent: 0, tolerance: 0, rubric: [] },
		0
	);
	for (const [i, { key }] of (await workOfMarker(otium.db, HOLT.id, { ...OF, questionId: 'essay' })).queue.entries())
		await giveMark(
			otium,
			{ role: 'marker', id: 'holt' },
			{ ...OF, questionId: 'essay' },
			{ id: `mark-${i}`, key, points: i % 5, criteria: {}, comment: '', tookMs: 30_000 }
		);
	await signOff(otium, ODE, by(ODE), 'winter', 'quayside');
}

async function ready() {
	house = await satHouse(PAPER, 12, answer, { absent: [11] });
	await tellIncident(house.otium, PROCTOR, 's1', {
		id: 'fire-alarm',
		kind: 'alarm',
		happenedAt: house.clock.at,
		note: 'Fire alarm',
		done: '',
		minutes: 0,
		sittingIds: ['sit0', 'sit1'],
		attachment: null
	});
}

describe('closing an administration', () => {
	it('is signed as it was read: what has changed since is told, and nothing is signed', async () => {
		await ready();
		await settle();
		const { db } = house.otium;
		const read = (await readBeneath(db, 'winter', ['quayside'])).quayside;
		await db('hand_mark').where({ id: 'mark-0' }).update({ points: 4 });
		await expect(signOff(house.otium, ODE, by(ODE), 'winter', 'quayside', read)).rejects.toMatchObject({
			problem: { message: expect.stringContaining('Since you read it, this has changed') }
		});
		const now = (await readBeneath(db, 'winter', ['quayside'])).quayside;
		await signOff(house.otium, ODE, by(ODE), 'winter', 'quayside', now);
		// Signed without having been read, by whoever sends nothing of it.
		await expect(signOff(house.otium, ODE, by(ODE), 'winter', 'quayside', {})).rejects.toThrow();
	});

	it('goes through its gates, each derived and settled by whoever may', async () => {
		await ready();
		expect(await open()).toEqual([
			'turn: 1 is owed a sitting',
			'incidents: 1 of 1 incident undecided',
			'by_hand: 11 of 11 to mark',
			'questions: A1 of Coastal Navigation is undecided',
			'signed: not signed yet'
		]);
		await expect(signOff(house.otium, ODE, by(ODE), 'winter', 'quayside')).rejects.toMatchObject({
			problem: { message: expect.stringContaining('Not everything is settled') }
		});
		await settle();
		expect(await open()).toEqual([]);
		expect((await correctionsOf(house.otium.db, 'winter'))[0]).toMatchObject({
			state: 'counts',
			decidedBy: 'Petra Lorne'
		});
		expect((await handProgress(house.otium.db, 'winter'))[0]).toMatchObject({
			answers: 11,
			settled: 11,
			minutesLeft: 0
		});
	});

	it('closes once, with an archive that proves every result, and nothing of it changes afterwards', async () => {
		await ready();
		await settle();
		const { basis, objection, needsSecond } = await closable(house.otium, LORNE, 'winter');
		expect([objection, needsSecond]).toEqual([null, false]);
		await close(house.otium, LORNE, by(LORNE), 'winter', basis);
		const closing = (await closingOf(house.otium.db, 'winter'))!;
		expect(closing.counts).toMatchObject({ results: 11, answers: 121 });
		const file = join(archivesIn(house.dir), closing.archive);
		expect(createHash('sha256').update(readFileSync(file)).digest('hex')).toBe(closing.sha256);
		expect(await verifyArchive(file)).toMatchObject({ faults: [], remarked: 11, isWithoutNames: false });

		// The table says what the lines say, one each.
		const files = unzipSync(readFileSync(file));
		const lines = strFromU8(files['results.jsonl']).trim().split('\n');
		const results = lines.map((line) => JSON.parse(line) as { number: string; points: number; outOf: number });
		const table = parse(files['results.csv'], { columns: true, bom: true }) as Record<string, string>[];
		expect(table.map((row) => [row.Number, Number(row.Points), Number(row['Out of'])])).toEqual(
			results.map(({ number, points, outOf }) => [number, points, outOf])
		);

		await withoutNames(file, `${file}.nameless`);
		expect(await verifyArchive(`${file}.nameless`)).toMatchObject({ faults: [], remarked: 11, isWithoutNames: true });

		const bytes = readFileSync(file);
		for (let place = 0; place < bytes.length; place += Math.floor(bytes.length / 60)) {
			const changed = Buffer.from(bytes);
			changed[place] ^= 1;
			writeFileSync(`${file}.changed`, changed);
			expect((await verifyArchive(`${file}.changed`)).faults, `byte ${place} of ${bytes.length}`).not.toEqual([]);
		}
		for (const cut of [1, 100, bytes.length - 10]) {
			writeFileSync(`${file}.changed`, bytes.subarray(0, bytes.length - cut));
			expect((await verifyArchive(`${file}.changed`)).faults, `${cut} bytes cut off`).not.toEqual([]);
		}
	});

	const closed = async () => (await closingOf(house.otium.db, 'winter')) !== null;
	const archives = () => readdirSync(archivesIn(house.dir)).filter((name) => !name.startsWith('.'));

	it('tells what becomes of withdrawn papers, of sites that sat nothing, and of days outside of its own', async () => {
		await ready();
		const { db } = house.otium;
		const told = async () => (await closable(house.otium, LORNE, 'winter')).standing.alsoCloses;
		expect(await told()).toEqual([]);
		const before = (await closable(house.otium, LORNE, 'winter')).basis;
		await db('site').insert({ id: 'point', name: 'Lighthouse Point', zone: 'Europe/London' });
		await db('entitlement').insert({ administration_id: 'winter', site_id: 'point', count: 20 });
		await db('administration').where({ id: 'winter' }).update({ opens_on: '2026-12-09', closes_on: '2026-12-18' });
		await withdrawVersion(house.otium, ODE, by(ODE), 'numbers', 'a misprint');
		expect(await told()).toEqual([
			'Coastal Navigation (version 1) was withdrawn after it was given: its 11 results count and become final all the same.',
			'Lighthouse Point is part of it and has no session: nothing of it becomes final, and nothing can be sat there in it any more.',
			'Numbers · Watch A was on Tuesday 8 December, outside of its dates, and closes with it.'
		]);
		// Whoever read it before reads it again.
		expect((await closable(house.otium, LORNE, 'winter')).basis).not.toBe(before);
	});

	it('tells how a question did in another administration, and over everybody together', async () => {
		await ready();
		const { otium } = house;
		await otium.db('administration').insert({ id: 'autumn', name: 'Autumn' });
		await otium.db('question_figure').insert({
			question_id: 'c1',
			paper_id: 'numbers',
			administration_id: 'autumn',
			seen: 9,
			facility: 0.5,
			discrimination: 0.3,
			at: house.clock.at
		});
		const here = await figures(otium, 'winter', 'numbers');
		const one = here.questions.find(({ questionId }) => questionId === 'c1')!;
		const elsewhere = await figuresElsewhere(otium, 'winter', 'numbers', here);
		expect(Object.keys(elsewhere)).toEqual(['c1']);
		expect(elsewhere.c1.did).toEqual([{ where: 'Autumn, version 1', seen: 9, facility: 0.5, discrimination: 0.3 }]);
		expect(elsewhere.c1.together.seen).toBe(one.seen + 9);
		expect(elsewhere.c1.together.facility).toBeCloseTo((one.seen * one.facility! + 4.5) / (one.seen + 9), 9);
	});

	it('two closing officers at once: one closes, the other is told that something has changed', async () => {
		await ready();
		await settle();
		const { basis } = await closable(house.otium, LORNE, 'winter');
		const done = await Promise.allSettled([
			close(house.otium, LORNE, by(LORNE), 'winter', basis),
			close(house.otium, { ...LORNE, id: 'reed' }, by({ id: 'reed' }), 'winter', basis)
		]);
		expect(done.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
		expect(archives()).toHaveLength(1);
		expect(await house.otium.db('closing')).toHaveLength(1);
	});

	it('is refused while anything is open, to whoever read something else, and with a clock that was set back', async () => {
		await ready();
		const early = await closable(house.otium, LORNE, 'winter');
		expect(early.objection!.message).toContain('5 gates are open');
		await expect(close(house.otium, LORNE, by(LORNE), 'winter', early.basis)).rejects.toMatchObject({ status: 409 });
		await settle();
		await expect(close(house.otium, LORNE, by(LORNE), 'winter', early.basis)).rejects.toMatchObject({
			problem: { code: 'changed_since_read' }
		});
		const { basis } = await closable(house.otium, LORNE, 'winter');
		const then = house.clock.at;
		house.clock.at -= 3_600_000;
		await expect(close(house.otium, LORNE, by(LORNE), 'winter', basis)).rejects.toMatchObject({
			problem: { message: expect.stringContaining('clock is behind') }
		});
		house.clock.at = then;
		// A marker takes a mark back after it was signed: the signature falls, and says what changed.
		const mark = await house.otium.db('hand_mark').first('id');
		await takeMarkBack(house.otium, { role: 'marker', id: 'holt' }, mark.id, null);
		expect(await open()).toEqual(['by_hand: 1 of 11 to mark', 'signed: the signature of Maren Ode no longer holds']);
		await expect(close(house.otium, LORNE, by(LORNE), 'winter', basis)).rejects.toMatchObject({ status: 409 });
		expect(await closed()).toBe(false);
	});

	it('what is written while the archive is, is not left out: nothing is closed', async () => {
		await ready();
		await settle();
		const { basis } = await closable(house.otium, LORNE, 'winter');
		const closing = close(house.otium, LORNE, by(LORNE), 'winter', basis);
		const meddling = (async () => {
			while (!existsSync(archivesIn(house.dir)) || archives().length === 0)
				await new Promise((resolve) => setTimeout(resolve, 2));
			await decideValidity(house.otium, by(ODE), ['sit3'], 'void', 'found out just now');
		})();
		const [done] = await Promise.allSettled([closing, meddling]);
		expect(done).toMatchObject({ status: 'rejected', reason: { problem: { code: 'changed_since_read' } } });
		expect([await closed(), archives()]).toEqual([false, []]);
	});

	it('a disk that is full, or a folder that can’t be written: nothing is closed and nothing is left', async () => {
		await ready();
		await settle();
		const { basis } = await closable(house.otium, LORNE, 'winter');
		// Its place is taken by a file: no archive can be written there.
		writeFileSync(archivesIn(house.dir), 'no folder');
		await expect(close(house.otium, LORNE, by(LORNE), 'winter', basis)).rejects.toThrow();
		expect(await closed()).toBe(false);
		rmSync(archivesIn(house.dir));
		// And when the closing itself can't be written, the archive goes.
		await house.otium.db.raw(
			"CREATE TRIGGER full BEFORE INSERT ON closing BEGIN SELECT RAISE(ABORT, 'disk full'); END"
		);
		await expect(close(house.otium, LORNE, by(LORNE), 'winter', basis)).rejects.toThrow('disk full');
		expect([await closed(), archives()]).toEqual([false, []]);
		await house.otium.db.raw('DROP TRIGGER full');
		await close(house.otium, LORNE, by(LORNE), 'winter', (await closable(house.otium, LORNE, 'winter')).basis);
		expect(await closed()).toBe(true);
	});

	it('takes two people where whoever closes has supervised some of it', async () => {
		await ready();
		await settle();
		await house.otium.db('session_proctor').insert({ session_id: 's1', staff_id: 'lorne' });
		await signOff(house.otium, ODE, by(ODE), 'winter', 'quayside').catch(() => {});
		const first = await closable(house.otium, LORNE, 'winter');
		expect([first.objection, first.needsSecond]).toEqual([null, true]);
		expect(await close(house.otium, LORNE, by(LORNE), 'winter', first.basis)).toEqual({ state: 'waits' });
		expect((await closable(house.otium, LORNE, 'winter')).objection!.message).toContain(
			'another person has to as well'
		);
		const { basis } = await closable(house.otium, ODE, 'winter');
		expect(await close(house.otium, ODE, by(ODE), 'winter', basis)).toMatchObject({ state: 'closed' });
		expect(await closingOf(house.otium.db, 'winter')).toMatchObject({ by: 'Petra Lorne', second: 'Maren Ode' });
	});

	it('what is found later is an addendum by two, sealed beside the archive', async () => {
		await ready();
		await expect(
			proposeAddendum(house.otium, by(ODE), { id: 'too-early-1', administrationId: 'winter', number: null, text: 'x' })
		).rejects.toMatchObject({ problem: { message: 'This administration is still open.' } });
		await settle();
		await close(house.otium, LORNE, by(LORNE), 'winter', (await closable(house.otium, LORNE, 'winter')).basis);
		const asked = {
			id: 'addendum-1',
			administrationId: 'winter',
			number: 'DO-1004',
			text: 'The paper copy had an answer more.'
		};
		await proposeAddendum(house.otium, by(ODE), asked);
		await expect(decideAddendum(house.otium, by(ODE), 'addendum-1', true)).rejects.toMatchObject({ status: 422 });
		await decideAddendum(house.otium, by(LORNE), 'addendum-1', true);
		const [addendum] = await addendaOf(house.otium.db, 'winter');
		expect(addendum).toMatchObject({ state: 'stands', candidate: 'Given3 Family3', decidedBy: 'Petra Lorne' });
		const { file } = await house.otium.db('addendum').first('file');
		const { text, seal } = JSON.parse(readFileSync(join(archivesIn(house.dir), file), 'utf8'));
		expect(createHash('sha256').update(text).digest('hex')).toBe(addendum.sha256);
		expect(isSealOf(readKey(JSON.parse(text).key)!, 'addendum', addendum.sha256!, seal)).toBe(true);
	});
});
