import { join } from 'node:path';
import Database from 'better-sqlite3';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { transact, verifyRows } from '../db';
import { giveHere, type House, CANDIDATE, COORDINATOR } from '../testing/house';
import { HOLT, LORNE, satHouse, SMALL_PAPER } from '../testing/sat';
import { searchLogbook } from '../logbook';
import { confirm, foresee, giveMark, propose, savePlan, workOfMarker } from '../marking';
import { withdrawGrant } from '../grants';
import { act } from '../sitting';
import { verifyRecord } from '.';

let house: House;
beforeEach(async () => {
	house = await satHouse(SMALL_PAPER, 3, (_, id) => (id === 'c1' ? false : 'Because.'));
	const of = { administrationId: 'winter', paperId: 'numbers', questionId: 'e1' };
	const plan = { markers: [{ id: 'holt', share: 1 }], secondPercent: 0, tolerance: 0, rubric: [] };
	await savePlan(house.otium, COORDINATOR, of, plan, 0);
	const by = (one: typeof HOLT) => ({ role: one.roles[0].role, id: one.id });
	for (const { key } of (await workOfMarker(house.otium.db, 'holt', of)).queue) {
		const mark = { id: key.slice(-20), key, points: 2, criteria: {}, comment: '', tookMs: 1 };
		await giveMark(house.otium, by(HOLT), of, mark);
	}
	const key = { kind: 'key', answer: false } as const;
	const ofKey = { ...of, questionId: 'c1' };
	await propose(house.otium, COORDINATOR, 'correction-1', ofKey, key, 'The key was wrong');
	await confirm(house.otium, by(LORNE), 'correction-1', (await foresee(house.otium, ofKey, key)).basis);
	await giveHere(house, { kind: 'extra_time', factor: 1.5, minutes: 0 } as never);
	// What tests write by hand is sealed with the next transaction.
	await transact(house.otium.db, async () => {});
});
afterEach(() => house.close());

/** Somebody who has the file and not the house's key; its triggers keep nobody from changing it. */
function tamper(...statements: string[]) {
	const file = new Database(join(house.dir, 'otium.sqlite'));
	const triggers = file.prepare("SELECT name FROM sqlite_master WHERE type = 'trigger'").pluck().all() as string[];
	for (const name of triggers) file.exec(`DROP TRIGGER ${name}`);
	file.pragma('foreign_keys = OFF');
	for (const statement of statements) file.exec(statement);
	file.close();
}
const broken = async () => (await verifyRecord(house.otium)).broken;

describe('what decides results', () => {
	it('is in the record with every change, and no page shows those entries', async () => {
		expect(await broken()).toBeNull();
		const { rows, anew } = await verifyRows(house.otium.db);
		expect([rows > 12, anew]).toEqual([true, []]);
		expect(await house.otium.db('logbook').where({ kind: 'rows' })).not.toEqual([]);
		expect((await searchLogbook(house.otium.db, { limit: 1_000 })).filter(({ kind }) => kind === 'rows')).toEqual([]);
	});

	it.each([
		['a mark by hand', 'UPDATE hand_mark SET points = 4', 'the mark'],
		['a mark taken out', 'DELETE FROM hand_mark WHERE rowid = 1', 'the mark'],
		['who marks', `UPDATE hand_plan SET body = replace(body, 'holt', 'reed')`, 'the plan for marking'],
		['a correction', `UPDATE correction SET body = '{"kind":"for_all"}'`, 'correction'],
		['a correction that was not confirmed', `UPDATE correction SET confirmed_by = 'ode'`, 'correction'],
		['a grant', `UPDATE grant_given SET body = replace(body, '1.5', '3')`, 'the grant'],
		['a grant taken back', `UPDATE grant_given SET withdrawn_at = 1`, 'the grant'],
		['a key of the paper', `UPDATE paper SET content = replace(content, '"answer":true', '"answer":false')`, 'paper'],
		['a form that was dealt', `UPDATE form SET form = replace(form, 'c1', 'e1') WHERE sitting_id = 'sit0'`, 'the form'],
		['how a sitting stands', `UPDATE sitting SET state = 'set_aside' WHERE id = 'sit0'`, 'sitting sit0'],
		['what a sitting went through', `UPDATE sitting SET fold = replace(fold, 'handed_in', 'time_up')`, 'sitting'],
		['what counts', `UPDATE sitting SET counts = 0 WHERE id = 'sit1'`, 'sitting sit1'],
		['the rules', `UPDATE session SET rules = json_set(rules, '$.result.passPercent', 1)`, 'session'],
		[
			'a decision put in',
			`INSERT INTO validity (id, sitting_id, verdict, proposed, note, by, at) VALUES ('v', 'sit0', 'valid', '{}', 'x', 'ode', 1)`,
			'the decision'
		],
		['a form taken out', `DELETE FROM form WHERE sitting_id = 'sit2'`, 'the form']
	])('is found changed without the key: %s', async (_, statement, named) => {
		tamper(statement);
		const found = await broken();
		expect(found).toMatch(/without an entry in the record/);
		expect(found).toContain(named);
		// The server goes on, and what it writes next hides nothing of it.
		await act(house.otium, [
			{ id: 'aside', sittingId: 'sit1', by: COORDINATOR, body: { kind: 'set_aside', reason: 'x' } }
		]);
		expect(await broken()).toMatch(/without an entry in the record/);
	});

	it('is found also where the entries that tell of it went with it, as their chain breaks', async () => {
		tamper('UPDATE hand_mark SET points = 4', "DELETE FROM logbook WHERE kind = 'rows'");
		expect(await broken()).toMatch(/the logbook breaks/);
	});

	it('may change by what the house does: grants, marks, corrections, sittings, restarts', async () => {
		const [grant] = await house.otium.db('grant_given').pluck('id');
		expect(await withdrawGrant(house.otium, COORDINATOR, grant)).toBe(true);
		await act(house.otium, [
			{ id: 'aside', sittingId: 'sit1', by: COORDINATOR, body: { kind: 'set_aside', reason: 'x' } },
			{ id: 'no-such', sittingId: 'sit2', by: CANDIDATE, body: { kind: 'begin' } }
		]);
		expect(await broken()).toBeNull();
		await house.restart();
		expect(await broken()).toBeNull();
		// What fails leaves neither a row nor a seal.
		await transact(house.otium.db, async (trx) => {
			await trx('sitting').where({ id: 'sit0' }).update({ state: 'set_aside' });
			throw new Error('the disk');
		}).catch(() => {});
		expect(await broken()).toBeNull();
	});

	it('may change while it is verified', async () => {
		let isOver = false;
		const changing = (async () => {
			for (let i = 0; !isOver; i++) {
				await transact(house.otium.db, (trx) =>
					trx('paper')
						.where({ id: 'numbers' })
						.update({ title: `Title ${i}` })
				);
				await new Promise((next) => setImmediate(next));
			}
		})();
		for (let i = 0; i < 15; i++) expect((await verifyRows(house.otium.db)).broken).toBeNull();
		isOver = true;
		await changing;
	});
});
