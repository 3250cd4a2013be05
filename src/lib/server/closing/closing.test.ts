import { createHash } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterEach, describe, expect, it } from 'vitest';
import type { Paper } from '$core/paper';
import { archivesIn, verifyArchive, withoutNames } from '../archive';
import { waive, owedAmong } from '../owed';
import { confirm, correctionsOf, foresee, giveMark, handProgress, propose, savePlan, workOfMarker } from '../marking';
import { satHouse, HOLT, LORNE, ODE } from '../testing/sat';
import type { House } from '../testing/house';
import { closable, close, decideIncident, signOff, standingOf, closingOf } from '.';
import { tellIncident } from '../incidents';
import { COORDINATOR, PROCTOR } from '../testing/house';

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
});
