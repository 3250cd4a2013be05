import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterEach, expect, it, vi } from 'vitest';
import { keptUntil } from '$core/retention';
import type { Paper } from '$core/paper';
import { archivesIn, verifyArchive } from '../archive';
import { verifyAnswers } from '../answers';
import { close, closable, closingOf, signOff } from '../closing';
import { appendAnswers, EMPTIED_TABLES, transact } from '../db';
import { appendToLogbook, searchLogbook, verifyLogbook } from '../logbook';
import { countingSittings } from '../marking';
import { signedReceipt, verifyReceipt } from '../proof';
import { tidy } from '../sweep';
import { COORDINATOR, type House } from '../testing/house';
import { LORNE, ODE, satHouse } from '../testing/sat';
import { dueNow, retentionOf, retentionTerms, saveRetentionTerms, subjectData } from '.';

// The first to ask a thread waits until it has started, which a busy machine takes seconds for.
vi.setConfig({ testTimeout: 60_000 });

const PAPER: Paper = {
	title: 'Coastal Navigation',
	parts: [
		{
			title: 'All',
			draw: null,
			questions: ['a', 'b', 'c', 'd'].map((id) => ({
				id,
				kind: 'short',
				stem: `${id}?`,
				points: 1,
				topic: 'Buoys',
				accepted: [id]
			}))
		}
	]
};
const DAY = 86_400_000;
let house: House;
afterEach(() => house.close());
const by = (staff: { id: string }) => ({ role: 'coordinator' as const, id: staff.id });

async function closedHouse() {
	house = await satHouse(PAPER, 6, (i, id) => (id === 'abcd'[i % 4] ? id : 'secret words'));
	await signOff(house.otium, ODE, by(ODE), 'winter', 'quayside');
	const { basis, objection } = await closable(house.otium, LORNE, 'winter');
	expect(objection).toBeNull();
	await close(house.otium, LORNE, by(LORNE), 'winter', basis);
	return (await closingOf(house.otium.db, 'winter'))!;
}
const kept = async (what: RegExp) =>
	(await retentionOf(house.otium.db, 'winter', house.clock.at)).find((one) => what.test(one.what))!;

it('keeps everything until somebody says for how long, and then deletes in its time, listed before and told after', async () => {
	const closing = await closedHouse();
	const { otium, clock, dir } = house;
	const { db } = otium;
	const receipt = (await signedReceipt(db, 'sit0', clock.at))!;
	clock.at = keptUntil(closing.at, 30);
	await tidy(otium);
	expect(await kept(/^Answers/)).toMatchObject({ there: 24, next: null });

	clock.at = closing.at + DAY;
	await expect(saveRetentionTerms(otium, COORDINATOR, { answers: 3, log: 2 })).rejects.toMatchObject({
		problem: { message: expect.stringContaining('at least as many years') }
	});
	await saveRetentionTerms(otium, COORDINATOR, { answers: 2, log: 3 });
	expect(await retentionTerms(db)).toEqual({ answers: 2, log: 3 });
	expect(await dueNow(db, { answers: 2, log: 3 }, clock.at)).toEqual([]);
	expect(await kept(/^Answers/)).toMatchObject({ there: 24, next: keptUntil(closing.at, 2), gone: 0 });

	clock.at = keptUntil(closing.at, 2) - DAY;
	await tidy(otium);
	expect(await kept(/^Answers/)).toMatchObject({ there: 24 });
	clock.at += 2 * DAY;
	expect(await dueNow(db, { answers: 2, log: 3 }, clock.at)).toEqual(['Winter']);
	await tidy(otium);
	await tidy(otium);
	expect(await kept(/^Answers/)).toMatchObject({ there: 0, next: null, gone: 24 });
	for (const table of new Set(Object.values(EMPTIED_TABLES).flat()))
		expect([table, await db(table).first()]).toEqual([table, undefined]);
	expect(await countingSittings(db, () => {})).toEqual([]);
	expect((await subjectData(db, 'can0'))!.answers).toEqual([]);
	expect(await verifyReceipt(db, receipt)).toMatchObject({ isOurs: true, now: 'deleted' });
	const told = await db('logbook').where({ kind: 'deleted_in_time' }).pluck('body');
	expect(told.map((body) => JSON.parse(body))).toEqual([{ what: 'answers', count: 24 }]);
	// The chains are whole without what was in them, and the archive still proves every result.
	expect(await verifyAnswers(db)).toMatchObject({ broken: null });
	expect(await verifyLogbook(db)).toMatchObject({ broken: null });
	expect(await verifyArchive(join(archivesIn(dir), closing.archive))).toMatchObject({ faults: [], remarked: 6 });
	// Nothing of it is left in the file, not even in pages that are free.
	await db.raw('PRAGMA wal_checkpoint(TRUNCATE)');
	expect(readFileSync(join(dir, 'otium.sqlite')).includes('secret words')).toBe(false);
});

it('takes out of the log what entries say, and nobody without the key can', async () => {
	const closing = await closedHouse();
	const { otium, clock } = house;
	const { db } = otium;
	await transact(db, (trx) =>
		appendToLogbook(trx, [
			{ at: clock.at, by: COORDINATOR, kind: 'roles_changed', body: { name: 'Ilse Reed', roles: [] } }
		])
	);
	await saveRetentionTerms(otium, COORDINATOR, { answers: 1, log: 1 });
	const before = await verifyLogbook(db);
	clock.at = keptUntil(closing.at, 1) + DAY;
	await tidy(otium);
	expect(await kept(/^What the log/)).toMatchObject({ there: 0, next: null });
	const bodies: { kind: string; body: string }[] = await db('logbook').whereNot({ body: '{}' }).select('kind', 'body');
	expect([...new Set(bodies.map(({ kind }) => kind))].sort()).toEqual([
		'administration_closed',
		'deleted_in_time',
		'retention_changed',
		'rows'
	]);
	const after = await verifyLogbook(db);
	expect(after).toMatchObject({ broken: null });
	expect(after.entries).toBe(before.entries + 2);
	const [line] = await searchLogbook(db, { sittingId: 'sit0' });
	expect(line).toMatchObject({ isEmptied: true, body: {} });

	// What is there can neither be changed nor emptied beside it, and an empty one without the house's mark is found.
	const last = await db('logbook').orderBy('seq', 'desc').first('seq');
	await expect(db('logbook').where(last).update({ body: '{}' })).rejects.toThrow('append-only');
	await expect(db('logbook').where(last).update({ emptied: 'x', at: 0, body: '{}' })).rejects.toThrow('append-only');
	await db('logbook').where(last).update({ emptied: 'x', body: '{}' });
	expect(await verifyLogbook(db)).toMatchObject({ broken: { seq: last.seq } });
});

it('waits for an administration that some of its answers were committed with, and says for which', async () => {
	house = await satHouse(PAPER, 6, (_, id) => id);
	const { otium, clock } = house;
	const { db } = otium;
	await db('administration').insert({ ...(await db('administration').first()), id: 'spring', name: 'Spring resits' });
	await db('sitting').where({ id: 'sit5' }).update({ administration_id: 'spring' });
	const row = { epoch: 9, seq: 1, question_id: 'a', value: '{"value":"x"}', in_view_ms: 0, late: 0 as const };
	await transact(db, (trx) =>
		appendAnswers(
			trx,
			['sit4', 'sit5'].map((sitting_id) => ({ ...row, sitting_id, received_at: clock.at, kept_because: 'gone_past' })),
			() => null,
			clock.at
		)
	);
	await signOff(otium, ODE, by(ODE), 'winter', 'quayside');
	const { basis } = await closable(otium, LORNE, 'winter');
	await close(otium, LORNE, by(LORNE), 'winter', basis);
	await saveRetentionTerms(otium, COORDINATOR, { answers: 1, log: null });
	clock.at = keptUntil(clock.at, 2);
	await tidy(otium);
	expect(await kept(/^Answers/)).toMatchObject({ there: 20, how: expect.stringContaining('not before Spring resits') });
	await expect(db('answer').where({ sitting_id: 'sit0' }).delete()).rejects.toThrow('closed');
	await expect(db('emptied').insert({ administration_id: 'spring', what: 'answers', at: 0 })).rejects.toThrow(
		'only a closed administration'
	);
	expect(await verifyAnswers(db)).toMatchObject({ broken: null });
});

it('goes on where it was interrupted, whole at every moment', async () => {
	const closing = await closedHouse();
	const { otium, clock } = house;
	const { db } = otium;
	await saveRetentionTerms(otium, COORDINATOR, { answers: 1, log: 1 });
	clock.at = keptUntil(closing.at, 1) + DAY;
	const fails = async (on: string, there: number) => {
		await db.raw(`CREATE TRIGGER fails BEFORE ${on} BEGIN SELECT RAISE(ABORT, 'the disk is full'); END`);
		await expect(tidy(otium)).rejects.toThrow('the disk is full');
		await db.raw('DROP TRIGGER fails');
		expect(await kept(/^Answers/)).toMatchObject({ there });
		expect(await verifyAnswers(db)).toMatchObject({ broken: null });
		expect(await verifyLogbook(db)).toMatchObject({ broken: null });
	};
	await fails('INSERT ON emptied', 24);
	await fails("DELETE ON answer WHEN old.sitting_id = 'sit3'", 24);
	await fails('UPDATE ON emptied', 0);
	await fails('UPDATE ON logbook', 0);
	await tidy(otium);
	expect(await kept(/^Answers/)).toMatchObject({ there: 0, gone: 24 });
	expect(await verifyAnswers(db)).toMatchObject({ broken: null });
	expect(existsSync(join(house.dir, 'handed')) && readdirSync(join(house.dir, 'handed'))).toBeFalsy();
});
