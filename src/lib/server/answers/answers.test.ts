import { nanoid } from 'nanoid';
import fc from 'fast-check';
import { afterEach, describe, expect, it } from 'vitest';
import type { Revision } from '$core/paper';
import { MINUTE } from '$core/time';
import { searchLogbook } from '../logbook';
import { act } from '../sitting';
import { arriveAt, bringToWork, buildHouse, openDoor, PROCTOR, type House } from '../testing/house';
import { countHeldBack, heldBack, standingAnswers } from '.';
import { runs } from '$core/testing/runs';

let house: House;
afterEach(() => house.close());
const revision = (
	seq: number,
	questionId: string,
	value: boolean | null,
	change: Partial<Revision> = {}
): Revision => ({
	seq,
	questionId,
	value,
	marked: false,
	struck: [],
	inViewMs: 1_000,
	...change
});
const standing = async (i = 0) =>
	Object.fromEntries(
		((await standingAnswers(house.otium.db, [`sit${i}`])).get(`sit${i}`) ?? []).map((one) => [
			one.questionId,
			one.value
		])
	);
const kept = async (i = 0) =>
	house.otium
		.db('answer')
		.where({ sitting_id: `sit${i}` })
		.orderBy(['epoch', 'seq'])
		.select('epoch', 'seq', 'kept_because');

describe('saving answers', () => {
	it('keeps every revision, and the newest stands', async () => {
		house = await buildHouse();
		const epoch = await bringToWork(house, 0, await openDoor(house));
		await house.otium.answers.save('sit0', epoch, [
			revision(1, 'q1', true),
			revision(2, 'q1', false),
			revision(3, 'q2', true)
		]);
		expect(await standing()).toEqual({ q1: false, q2: true });
		expect(await kept()).toHaveLength(3);
		const row = await house.otium.db('progress').where({ sitting_id: 'sit0' }).first('answered');
		expect(row.answered).toBe(2);
	});

	it('changes no answer for a number that comes late; of one that is used twice, what was taken last stands', async () => {
		house = await buildHouse();
		const epoch = await bringToWork(house, 0, await openDoor(house));
		const { answers } = house.otium;
		await answers.save('sit0', epoch, [revision(5, 'q1', true)]);
		await answers.save('sit0', epoch, [revision(5, 'q1', false), revision(5, 'q2', false)]);
		await answers.save('sit0', epoch, [revision(4, 'q1', false)]);
		expect(await standing()).toEqual({ q1: false, q2: false });
		expect(await kept()).toHaveLength(4);
		// The first of them once more is there already.
		await answers.save('sit0', epoch, [revision(5, 'q1', true)]);
		expect(await standing()).toEqual({ q1: false, q2: false });
	});

	it('comes to the same whatever order, batching and repetition the line makes of it', async () => {
		house = await buildHouse();
		const epoch = await bringToWork(house, 0, await openDoor(house));
		let base = 0;
		const batch = fc.array(
			fc.record({
				seq: fc.integer({ min: 1, max: 12 }),
				question: fc.integer({ min: 1, max: 3 }),
				value: fc.constantFrom(true, false, null)
			}),
			{ minLength: 1, maxLength: 20 }
		);
		await fc.assert(
			fc.asyncProperty(batch, async (sent) => {
				base += 60;
				// For a question the highest number counts; of two with the same, who comes last, and not only once more.
				const last = new Map<number, (typeof sent)[number]>();
				const first = new Map<number, string>();
				for (const one of sent) {
					const isRepeated = first.get(one.seq) === JSON.stringify(one);
					if (!first.has(one.seq)) first.set(one.seq, JSON.stringify(one));
					if (!isRepeated && one.seq >= (last.get(one.question)?.seq ?? 0)) last.set(one.question, one);
				}
				await Promise.all(
					sent.map((one) =>
						house.otium.answers.save('sit0', epoch, [revision(base + one.seq, `q${one.question}`, one.value)])
					)
				);
				const now = await standing();
				for (const [question, { value }] of last) expect(now[`q${question}`]).toBe(value);
				// And nothing that was acknowledged is missing.
				const rows: { question_id: string; value: string }[] = await house.otium.db('answer');
				const there = new Set(rows.map((row) => `${row.question_id} ${JSON.parse(row.value).value}`));
				for (const one of sent) expect(there).toContain(`q${one.question} ${one.value}`);
			}),
			{ numRuns: runs(40) }
		);
	});

	it('a number that a device uses twice, loaded anew while what it had sent was on its way, loses neither', async () => {
		house = await buildHouse();
		const epoch = await bringToWork(house, 0, await openDoor(house));
		const save = (...revisions: Revision[]) => house.otium.answers.save('sit0', epoch, revisions);
		await save(revision(1, 'q1', true));
		// Loaded anew, it was told that 1 was the last; what it had sent as 2 and 3 arrives after what it now calls 2.
		expect(await save(revision(2, 'q2', true))).toMatchObject({ seqs: [2] });
		const late = [revision(2, 'q3', false), revision(3, 'q2', false)];
		expect(await save(...late)).toMatchObject({ seqs: [2, 3] });
		expect(await standing()).toEqual({ q1: true, q2: false, q3: false });
		expect(await kept()).toHaveLength(4);
		// Sent once more because its answer was lost, it is there already.
		await save(...late);
		await save(revision(2, 'q2', true));
		expect(await kept()).toHaveLength(4);
		expect(await standing()).toEqual({ q1: true, q2: false, q3: false });
	});

	it('keeps answers after the end without letting them stand, and tells the logbook', async () => {
		house = await buildHouse();
		const epoch = await bringToWork(house, 0, await openDoor(house));
		await house.otium.answers.save('sit0', epoch, [revision(1, 'q1', true)]);
		await act(house.otium, [
			{ id: nanoid(), sittingId: 'sit0', by: PROCTOR, body: { kind: 'hand_in', receipt: 'R', reason: 'left' } }
		]);
		const saved = await house.otium.answers.save('sit0', epoch, [revision(2, 'q1', false)]);
		expect(saved).toMatchObject({ kept: 'after_end', seqs: [2] });
		// The first one once more, as after a lost acknowledgement: it was taken in time and still is.
		expect((await house.otium.answers.save('sit0', epoch, [revision(1, 'q1', true)])).kept).toBeNull();
		expect(await standing()).toEqual({ q1: true });
		expect(await kept()).toEqual([
			{ epoch: 1, seq: 1, kept_because: null },
			{ epoch: 1, seq: 2, kept_because: 'after_end' }
		]);
		expect((await searchLogbook(house.otium.db, { text: 'answers_kept' }))[0].body).toEqual({
			because: 'after_end',
			answers: 1
		});
	});

	it('marks answers in the grace late and takes none after it, by the server’s clock alone', async () => {
		house = await buildHouse();
		const epoch = await bringToWork(house, 0, await openDoor(house));
		house.clock.at += 60 * MINUTE + 30_000;
		expect((await house.otium.answers.save('sit0', epoch, [revision(1, 'q1', true)])).kept).toBeNull();
		expect((await standingAnswers(house.otium.db, ['sit0'])).get('sit0')![0].late).toBe(true);
		house.clock.at += MINUTE;
		expect((await house.otium.answers.save('sit0', epoch, [revision(2, 'q2', true)])).kept).toBe('after_end');
	});

	it('takes answers of a freed device into keeping, and lets the next device’s stand', async () => {
		house = await buildHouse();
		const code = await openDoor(house);
		const first = await bringToWork(house, 0, code);
		await house.otium.answers.save('sit0', first, [revision(1, 'q1', true)]);
		await act(house.otium, [{ id: nanoid(), sittingId: 'sit0', by: PROCTOR, body: { kind: 'move_device' } }]);
		const second = await arriveAt(house, 0, code, 'another');
		if (!second.ok) throw new Error(second.refusal.code);
		expect(second.device.epoch).toBe(first + 1);
		await act(house.otium, [{ id: nanoid(), sittingId: 'sit0', by: PROCTOR, body: { kind: 'let_in' } }]);
		const { begin } = await import('../sitting');
		await begin(house.otium, 'sit0', nanoid(), '');
		await house.otium.answers.save('sit0', second.device.epoch, [revision(1, 'q1', false)]);
		expect((await house.otium.answers.save('sit0', first, [revision(9, 'q1', true)])).kept).toBe('freed_device');
		expect(await standing()).toEqual({ q1: false });
	});

	it('holds back what came after the end until a person lets it count: once, with the reason, and nothing newer replaced', async () => {
		house = await buildHouse();
		const { otium } = house;
		const code = await openDoor(house);
		const first = await bringToWork(house, 0, code);
		await otium.answers.save('sit0', first, [revision(1, 'q1', true), revision(2, 'q2', true)]);
		expect(await heldBack(otium.db, ['sit0', 'sit1'])).toEqual(new Map());
		const endedAt = house.clock.at;
		await act(otium, [
			{ id: nanoid(), sittingId: 'sit0', by: PROCTOR, body: { kind: 'hand_in', receipt: 'R', reason: 'time' } }
		]);
		// The line was down: all of it comes now, with one question answered twice, and a note.
		house.clock.at = endedAt + 5 * MINUTE;
		await otium.answers.save('sit0', first, [
			revision(3, 'q2', false),
			revision(4, 'q3', true),
			revision(5, 'q3', false),
			{ ...revision(6, 'notes', null), value: 'scratch' }
		]);
		expect(await standing()).toEqual({ q1: true, q2: true });
		expect(await heldBack(otium.db, ['sit0'])).toEqual(
			new Map([['sit0', { count: 2, since: house.clock.at, because: ['after_end'] }]])
		);
		const count = () => countHeldBack(otium, PROCTOR, 's1', 'sit0', 'The line was down');
		expect((await Promise.all([count(), count()])).sort()).toEqual([0, 2]);
		expect(await standing()).toEqual({ q1: true, q2: false, q3: false });
		expect((await otium.db('progress').where({ sitting_id: 'sit0' }).first('answered')).answered).toBe(3);
		expect(await heldBack(otium.db, ['sit0'])).toEqual(new Map());
		// How it came stays on record beside who let it count.
		expect((await kept()).filter((row) => row.kept_because === 'after_end')).toHaveLength(4);
		const entries = await searchLogbook(otium.db, { text: 'answers_counted' });
		expect(entries.map((entry) => entry.body)).toEqual([{ answers: 2, reason: 'The line was down' }]);
	});

	it('of a freed device, what would fill a blank can be counted, and the newer device’s answer stays', async () => {
		house = await buildHouse();
		const { otium } = house;
		const code = await openDoor(house);
		const first = await bringToWork(house, 0, code);
		await act(otium, [{ id: nanoid(), sittingId: 'sit0', by: PROCTOR, body: { kind: 'move_device' } }]);
		const second = await arriveAt(house, 0, code, 'another');
		if (!second.ok) throw new Error(second.refusal.code);
		await act(otium, [{ id: nanoid(), sittingId: 'sit0', by: PROCTOR, body: { kind: 'let_in' } }]);
		const { begin } = await import('../sitting');
		await begin(otium, 'sit0', nanoid(), '');
		await otium.answers.save('sit0', second.device.epoch, [revision(1, 'q1', false)]);
		await otium.answers.save('sit0', first, [revision(8, 'q1', true), revision(9, 'q2', true)]);
		expect((await heldBack(otium.db, ['sit0'])).get('sit0')?.count).toBe(1);
		expect(await countHeldBack(otium, PROCTOR, 's1', 'sit0', 'Written before the device broke')).toBe(1);
		expect(await standing()).toEqual({ q1: false, q2: true });
	});

	it('refuses a question that is not on the form, and nothing of that request is saved', async () => {
		house = await buildHouse();
		const epoch = await bringToWork(house, 0, await openDoor(house));
		await expect(
			house.otium.answers.save('sit0', epoch, [revision(1, 'q1', true), revision(2, 'elsewhere', true)])
		).rejects.toMatchObject({ code: 'unknown_question' });
		expect(await kept()).toEqual([]);
	});

	it('fails the save, and not the server, when the disk will not take it; the same save works afterwards', async () => {
		house = await buildHouse();
		const epoch = await bringToWork(house, 0, await openDoor(house));
		await house.otium.db.raw('PRAGMA max_page_count = 1');
		const pages = (await house.otium.db.raw('PRAGMA page_count'))[0].page_count;
		await house.otium.db.raw(`PRAGMA max_page_count = ${pages}`);
		const big = Array.from({ length: 400 }, (_, i) => revision(i + 1, 'q1', true, { struck: ['x'.repeat(60)] }));
		await expect(house.otium.answers.save('sit0', epoch, big)).rejects.toMatchObject({ code: 'SQLITE_FULL' });
		await house.otium.db.raw('PRAGMA max_page_count = 1000000');
		expect((await house.otium.answers.save('sit0', epoch, big)).seqs).toHaveLength(400);
		expect(await kept()).toHaveLength(400);
	});
});
