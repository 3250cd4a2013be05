import { afterEach, describe, expect, it, vi } from 'vitest';
import fc from 'fast-check';
import type { Paper } from '$core/paper';
import type { Correction } from '$core/marking';
import { resultLines } from '../results';
import { satHouse } from '../testing/sat';
import type { House } from '../testing/house';
import {
	compareRuns,
	confirm,
	decline,
	foresee,
	giveMark,
	handProgress,
	propose,
	runsOf,
	savePlan,
	sittingOfKey,
	takeMarkBack,
	workOfMarker
} from '.';
import { runs } from '$core/testing/runs';

// The first to ask a thread waits until it has started, which a busy machine takes seconds for.
vi.setConfig({ testTimeout: 60_000 });

const PAPER: Paper = {
	title: 'Watch',
	parts: [
		{
			title: 'All',
			draw: null,
			questions: [
				{ id: 'yes', kind: 'true_false', stem: 'Is it?', points: 1, topic: '', answer: true },
				{ id: 'why', kind: 'essay', stem: 'Why?', points: 6, topic: '', words: null },
				{ id: 'how', kind: 'essay', stem: 'How?', points: 4, topic: '', words: null }
			]
		}
	]
};
const OF = { administrationId: 'winter', paperId: 'numbers' };
const WHY = { ...OF, questionId: 'why' };
const marker = (id: string) => ({ role: 'marker' as const, id });
let house: House;
const open = async () =>
	(house = await satHouse(PAPER, 6, (i, id) =>
		id === 'yes' ? i % 2 === 0 : id === 'how' && i === 5 ? '' : `Text of ${i}`
	));
afterEach(() => house.close());
const plan = (change: object = {}) =>
	savePlan(
		house.otium,
		{ role: 'coordinator', id: 'ode' },
		WHY,
		{
			markers: ['holt', 'reed', 'ode'].map((id) => ({ id, share: 1 })),
			secondPercent: 100,
			tolerance: 1,
			rubric: [],
			...change
		},
		0
	);
const queue = async (id: string) => (await workOfMarker(house.otium.db, id, WHY)).queue;
let ids = 0;
const give = async (id: string, key: string, points: number, more: object = {}) =>
	giveMark(house.otium, marker(id), WHY, {
		id: `mark-${++ids}-x`,
		key,
		points,
		criteria: {},
		comment: '',
		tookMs: 60_000,
		...more
	});
const points = async () =>
	(await resultLines(house.otium.db, (query) => query.where('sitting.administration_id', 'winter'))).map(
		({ result }) => [result.points, result.toMark]
	);

describe('marking by people', () => {
	it('goes round: first and second, the mean within the tolerance, a third where they differ; blanks are nobody’s work', async () => {
		await open();
		await plan();
		const [progress, how] = await handProgress(house.otium.db, 'winter');
		expect([progress.answers, how.answers, how.unnamed]).toEqual([6, 5, 5]);
		for (const id of ['holt', 'reed', 'ode'])
			for (const { key } of await queue(id)) await give(id, key, id === 'reed' ? 5 : 4);
		for (const id of ['holt', 'reed', 'ode'])
			for (const { key, turn } of await queue(id)) {
				expect(turn).toBe('second');
				await give(id, key, id === 'reed' ? 5 : 4);
			}
		const [settled] = await handProgress(house.otium.db, 'winter');
		expect(settled).toMatchObject({ settled: 6, open: { first: 0, second: 0, third: 0 }, agreement: { pairs: 6 } });
		// One takes theirs back and gives far less: now a third decides.
		const { done } = await workOfMarker(house.otium.db, 'holt', WHY);
		await takeMarkBack(house.otium, marker('holt'), done[0].id, null);
		const [again] = await queue('holt');
		await give('holt', again.key, 0);
		const third = (await Promise.all(['holt', 'reed', 'ode'].map(async (id) => ({ id, queue: await queue(id) })))).find(
			({ queue }) => queue.length > 0
		)!;
		expect(third.queue[0]).toMatchObject({ turn: 'third', others: expect.arrayContaining([0]) });
		await give(third.id, third.queue[0].key, 3);
		expect((await handProgress(house.otium.db, 'winter'))[0].settled).toBe(6);
		expect((await points()).filter(([, toMark]) => toMark === 0)).toHaveLength(1);
	});

	it('takes no key that was made up, is of another question, or of an answer that goes to somebody else', async () => {
		await open();
		await plan({ secondPercent: 0 });
		const [mine] = await queue('holt');
		const [theirs] = await queue('reed');
		for (const key of ['', 'sit0', 'marking why sit0', `${mine.key}x`])
			await expect(give('holt', key, 3)).rejects.toMatchObject({ status: 404 });
		await expect(give('holt', theirs.key, 3)).rejects.toMatchObject({ status: 422 });
		await expect(
			giveMark(
				house.otium,
				marker('holt'),
				{ ...OF, questionId: 'how' },
				{ id: 'of-another-1', key: mine.key, points: 1, criteria: {}, comment: '', tookMs: 0 }
			)
		).rejects.toMatchObject({ status: 404 });
		expect(await sittingOfKey(house.otium.db, WHY, theirs.key, 'holt')).toBeNull();
		for (const points of [-1, 6.5, NaN])
			await expect(give('holt', mine.key, points)).rejects.toMatchObject({ status: 422 });
		// A double click is one mark, and two people at once as well.
		const once = { id: 'the-same-one', key: mine.key, points: 3, criteria: {}, comment: '', tookMs: 1 };
		await Promise.all([
			giveMark(house.otium, marker('holt'), WHY, once),
			giveMark(house.otium, marker('holt'), WHY, once)
		]);
		await expect(give('holt', mine.key, 4)).rejects.toMatchObject({ status: 422 });
		expect(await house.otium.db('hand_mark')).toHaveLength(1);
		await expect(takeMarkBack(house.otium, marker('reed'), 'the-same-one', null)).rejects.toMatchObject({
			status: 403
		});
		expect(JSON.stringify(await workOfMarker(house.otium.db, 'holt', WHY))).not.toMatch(/sit\d|can\d|DO-|Family/);
	});

	it('of working shows the marker what it belongs to: what was asked, answered and right', async () => {
		const [part] = PAPER.parts;
		const questions = part.questions.map((one) => (one.id === 'why' ? { ...one, follows: 'yes' } : one));
		house = await satHouse({ ...PAPER, parts: [{ ...part, questions }] }, 2, (i, id) =>
			id === 'yes' ? i === 0 : `Text of ${i}`
		);
		await plan({ secondPercent: 0, markers: [{ id: 'holt', share: 1 }] });
		const beside = (await queue('holt')).map(({ value, beside }) => [value, beside]);
		expect(beside.sort()).toEqual([
			['Text of 0', { stem: 'Is it?', answer: 'True', right: 'True' }],
			['Text of 1', { stem: 'Is it?', answer: 'False', right: 'True' }]
		]);
	});

	it('by criteria: every one of them, none above what it is worth; a plan that somebody changed meanwhile is not written over', async () => {
		await open();
		const rubric = [
			{ id: 'a', text: 'Facts', points: 4 },
			{ id: 'b', text: 'Words', points: 2 }
		];
		await plan({ secondPercent: 0, rubric });
		const [one] = await queue('holt');
		await expect(give('holt', one.key, 0, { criteria: { a: 4 } })).rejects.toMatchObject({ status: 422 });
		await expect(give('holt', one.key, 0, { criteria: { a: 1, b: 3 } })).rejects.toMatchObject({ status: 422 });
		await give('holt', one.key, 99, { criteria: { a: 3, b: 1.5 } });
		expect((await house.otium.db('hand_mark').first('points')).points).toBe(4.5);
		await expect(plan()).rejects.toMatchObject({ problem: { code: 'changed_since_read' } });
	});
});

describe('corrections', () => {
	const YES = { ...OF, questionId: 'yes' };
	const ode = { role: 'coordinator' as const, id: 'ode' };
	const lorne = { role: 'closing_officer' as const, id: 'lorne' };
	const put = async (id: string, correction: Correction) => {
		await propose(house.otium, ode, id, YES, correction, 'x');
		return confirm(house.otium, lorne, id, (await foresee(house.otium, YES, correction)).basis);
	};

	it('count once another person has confirmed what they read; each marking is kept and compared', async () => {
		await open();
		const before = await points();
		await propose(house.otium, ode, 'correction-1', YES, { kind: 'key', answer: false }, 'the key was wrong');
		expect(await points()).toEqual(before);
		await expect(propose(house.otium, ode, 'correction-2', YES, { kind: 'for_all' }, 'x')).rejects.toMatchObject({
			status: 422
		});
		const { basis, count } = await foresee(house.otium, YES, { kind: 'key', answer: false });
		expect(count).toMatchObject({ up: 3, down: 3 });
		await expect(confirm(house.otium, ode, 'correction-1', basis)).rejects.toMatchObject({
			problem: { message: expect.stringContaining('another person') }
		});
		await expect(confirm(house.otium, lorne, 'correction-1', 'something else')).rejects.toMatchObject({
			problem: { code: 'changed_since_read' }
		});
		const [one, other] = await Promise.allSettled([
			confirm(house.otium, lorne, 'correction-1', basis),
			confirm(house.otium, lorne, 'correction-1', basis)
		]);
		expect([one.status, other.status].sort()).toEqual(['fulfilled', 'rejected']);
		await expect(decline(house.otium, lorne, 'correction-1')).rejects.toMatchObject({ status: 422 });
		const runs = await runsOf(house.otium.db, 'winter', 'numbers');
		expect(runs.map(({ why, results }) => [why, results])).toEqual(
			expect.arrayContaining([
				['as it was sat', 6],
				['after a correction', 6]
			])
		);
		const [sat, after] = ['as it was sat', 'after a correction'].map((why) => runs.find((run) => run.why === why)!.id);
		expect((await compareRuns(house.otium.db, sat, after)).changes).toHaveLength(6);
	});

	it('property: whatever is corrected and put back, the marks are the first ones', async () => {
		await open();
		const before = await points();
		const correction = fc.constantFrom<Correction>(
			{ kind: 'key', answer: false },
			{ kind: 'for_all' },
			{ kind: 'leave_out' },
			{ kind: 'points', points: 3 },
			{ kind: 'accept', answer: false }
		);
		let n = 0;
		await fc.assert(
			fc.asyncProperty(fc.array(correction, { minLength: 1, maxLength: 3 }), async (all) => {
				for (const one of all) await put(`correction-${++n}`, one);
				await put(`correction-${++n}`, { kind: 'restore' });
				expect(await points()).toEqual(before);
			}),
			{ numRuns: runs(4) }
		);
	});
});
