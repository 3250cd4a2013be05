import { createHash, createPublicKey, verify } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { nanoid } from 'nanoid';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { Revision } from '$core/paper';
import { countHeldBack } from '../answers';
import { wordsOf } from '../mail';
import { endSession } from '../session';
import { act } from '../sitting';
import { bringToWork, buildHouse, CANDIDATE, COORDINATOR, openDoor, PROCTOR, type House } from '../testing/house';
import { anchorOf, castAnchor, headOf, receiptKey, signedReceipt, verifyReceipt, verifyRecord } from '.';

let house: House;
let code: string;
let epoch: number;
let seq = 0;
beforeEach(async () => {
	house = await buildHouse();
	code = await openDoor(house);
	epoch = await bringToWork(house, 0, code);
});
afterEach(() => house.close());

const answer = (value: boolean, questionId = 'q1'): Revision => ({
	seq: ++seq,
	questionId,
	value,
	marked: false,
	struck: [],
	inViewMs: 1_000
});
const save = (...revisions: Revision[]) => house.otium.answers.save('sit0', epoch, revisions);
const handIn = (receipt = 'AAAAA-BBBBB') =>
	act(house.otium, [
		{ id: nanoid(), sittingId: 'sit0', by: CANDIDATE, body: { kind: 'hand_in', receipt, reason: null } }
	]);
/** Whoever has the file takes away what guards it, and changes what they like. */
async function change(...statements: string[]) {
	for (const table of ['logbook', 'answer', 'answer_group'])
		for (const act of ['update', 'delete']) await house.otium.db.raw(`DROP TRIGGER IF EXISTS ${table}_no_${act}`);
	for (const statement of statements) await house.otium.db.raw(statement);
}
const broken = async () => (await verifyRecord(house.otium)).broken;

describe('the record', () => {
	beforeEach(async () => {
		await save(answer(true), answer(false, 'q2'));
		await save(answer(false));
		expect(await verifyRecord(house.otium)).toMatchObject({ answers: 3, broken: null });
	});

	it.each([
		['an answer is changed', "UPDATE answer SET value = replace(value, 'false', 'true')", /^answers of group 1/],
		['an answer is taken away', 'DELETE FROM answer WHERE seq = (SELECT max(seq) FROM answer)', /^answers of group 2/],
		[
			'an answer is added',
			`INSERT INTO answer SELECT sitting_id, epoch, 900, question_id, value, in_view_ms, received_at, late, kept_because, group_seq FROM answer LIMIT 1`,
			/^answers of group 1/
		],
		[
			'an answer is added beside the groups',
			`INSERT INTO answer SELECT sitting_id, epoch, 900, question_id, value, in_view_ms, received_at, late, kept_because, NULL FROM answer LIMIT 1`,
			/^1 answers are in no group/
		],
		['a group is taken away', 'DELETE FROM answer_group WHERE seq = 1', /^the group of answers 1 is missing/],
		[
			'what counts is changed',
			`UPDATE answer_standing SET value = replace(value, 'false', 'true')`,
			/^what counts of question q[12]/
		],
		[
			'an earlier answer is made to count again',
			`UPDATE answer_standing SET (value, seq) = (SELECT value, seq FROM answer WHERE question_id = 'q1' ORDER BY seq LIMIT 1) WHERE question_id = 'q1'`,
			/^what counts of question q1/
		],
		['what counts is taken away', "DELETE FROM answer_standing WHERE question_id = 'q2'", /^an answer to question q2/],
		[
			'an entry is changed',
			"UPDATE logbook SET body = '{}' WHERE seq = 2",
			/^the logbook breaks at entry 2: its contents were changed/
		],
		[
			'an entry is taken away',
			'DELETE FROM logbook WHERE seq = 2',
			/^the logbook breaks at entry 3: entry 2 is missing/
		]
	])('tells when %s', async (_, statement, why) => {
		await change(statement);
		expect(await broken()).toMatch(why);
	});

	it('tells when an entry is changed and all hashes are worked out anew, without the key', async () => {
		await change();
		const { db } = house.otium;
		let before = '0'.repeat(64);
		for (const { hash: _, before: __, ...told } of await db('logbook').orderBy('seq')) {
			if (told.seq === 2) told.body = '{}';
			const hash = createHash('sha256')
				.update(JSON.stringify([...Object.values(told), before]))
				.digest('hex');
			await db('logbook').where({ seq: told.seq }).update({ body: told.body, before, hash });
			before = hash;
		}
		expect(await broken()).toMatch(/^the logbook breaks at entry 1: its contents were changed/);
	});

	it('takes what a device sends twice under one number, and what a coordinator lets count, for what it is', async () => {
		const twice = answer(true, 'q3');
		await save(twice);
		await save({ ...twice, value: false });
		await handIn();
		await save(answer(true, 'q4'));
		expect(await broken()).toBeNull();
		await countHeldBack(house.otium, COORDINATOR, 's1', 'sit0', 'the line was down');
		expect(await broken()).toBeNull();
	});

	it('that is cut off at its end is found by what was anchored before', async () => {
		const { entries } = await castAnchor(house.otium);
		await save(answer(true, 'q5'));
		expect(await broken()).toBeNull();
		await change(`DELETE FROM logbook WHERE seq >= ${entries}`);
		expect(await broken()).toMatch(new RegExp(`the logbook had ${entries} entries at .*; what came last is missing`));
	});

	it('that lost its last answers, with all that counts them, is found by what was anchored before', async () => {
		await castAnchor(house.otium);
		await change(
			'DELETE FROM answer WHERE group_seq = 2',
			'DELETE FROM answer_group WHERE seq = 2',
			`UPDATE answer_standing SET (value, seq) = (SELECT value, seq FROM answer WHERE question_id = 'q1') WHERE question_id = 'q1'`
		);
		expect(await broken()).toMatch(/answers had come in 2 groups at .*; what came last is missing/);
	});
});

describe('an anchor', () => {
	it('goes to each place that is named, and one that fails keeps no other from it', async () => {
		const dir = mkdtempSync(join(tmpdir(), 'otium-anchor-'));
		const got: string[] = [];
		const server = createServer((request, response) => {
			request.on('data', (part: Buffer) => got.push(part.toString()));
			request.on('end', () => response.writeHead(request.url === '/full' ? 507 : 200).end());
		});
		await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
		const url = `http://127.0.0.1:${(server.address() as { port: number }).port}`;
		process.env.OTIUM_ANCHOR = `${url}/full, ${join(dir, 'elsewhere')}, ${url}/, mailto:record@saltmarsh.example`;
		try {
			await expect(castAnchor(house.otium)).rejects.toThrow(/answered 507/);
			await endSession(house.otium, 's1', PROCTOR);
			const anchor = JSON.parse(readFileSync(join(dir, 'elsewhere'), 'utf8'));
			expect(anchorOf(house.otium.db, anchor).mac).toBe(anchor.mac);
			expect(got.map((line) => JSON.parse(line))).toEqual([anchor, anchor]);
			const [mail] = await house.otium.db('mail').where({ kind: 'record' });
			expect(mail.to_address).toBe('record@saltmarsh.example');
			const mailed = JSON.parse(wordsOf(house.otium.db, mail).split('\n').at(-2)!);
			// It says how far the record had come when the session ended.
			const entry = await house.otium.db('logbook').where({ seq: mailed.entries }).first('kind', 'hash');
			expect([entry.kind, mailed.head]).toEqual(['session_ended', entry.hash]);
		} finally {
			delete process.env.OTIUM_ANCHOR;
			server.close();
			rmSync(dir, { recursive: true });
		}
	});

	it('is written when something has happened, and not else', async () => {
		const lines = () => readFileSync(join(house.otium.dataDir, 'anchors.log'), 'utf8').trim().split('\n').length;
		for (let i = 0; i < 3; i++) await castAnchor(house.otium);
		expect(lines()).toBe(1);
		await save(answer(true));
		await castAnchor(house.otium);
		expect(lines()).toBe(2);
	});

	it('that somebody else has written proves nothing', async () => {
		const { db, dataDir, now } = house.otium;
		const forged = { ...(await headOf(db, now())), entries: 10_000, mac: 'x'.repeat(43) };
		const { appendFileSync } = await import('node:fs');
		appendFileSync(join(dataDir, 'anchors.log'), `${JSON.stringify(forged)}\nnonsense\n`);
		expect(await verifyRecord(house.otium)).toMatchObject({ broken: null, anchoredAt: null });
	});
});

describe('a receipt', () => {
	const receipt = async () => (await signedReceipt(house.otium.db, 'sit0', house.otium.now()))!;
	const verdict = async (text: string) => verifyReceipt(house.otium.db, text);

	it('says what was handed in, and is signed so that it can be checked without the house', async () => {
		await save(answer(true), answer(false, 'q2'));
		expect(await receipt()).toBeNull();
		await handIn();
		const jws = await receipt();
		// RFC 7515, 5.2, and RFC 8037: Ed25519 over the first two parts, by another implementation.
		const [head, payload, signature] = jws.split('.');
		const key = createPublicKey(receiptKey(house.otium.db));
		expect(verify(null, Buffer.from(`${head}.${payload}`), key, Buffer.from(signature, 'base64url'))).toBe(true);
		const said = JSON.parse(Buffer.from(payload, 'base64url').toString());
		expect(said).toMatchObject({ receipt: 'AAAAA-BBBBB', number: 'DO-1001', paper: 'Numbers', version: 1, answers: 2 });
		expect(await verdict(`Dear house, here it is:\n\n${jws}\n`)).toMatchObject({ isOurs: true, now: 'same' });
		// As the file has it that a candidate keeps.
		expect(
			await verdict(`Numbers, handed in.\n\nPaste it at http://localhost/verify to see what was handed in.\n\n${jws}`)
		).toMatchObject({ isOurs: true });
		// As a mail program breaks it.
		expect(await verdict(jws.replace(/(.{60})/g, '$1\r\n'))).toMatchObject({ isOurs: true, now: 'same' });
	});

	it('tells when what is kept is something else, and when that has its reason', async () => {
		await save(answer(true));
		await handIn();
		const jws = await receipt();
		await save(answer(false, 'q2'));
		expect(await verdict(jws)).toMatchObject({ now: 'same' });
		await countHeldBack(house.otium, COORDINATOR, 's1', 'sit0', 'the line was down');
		expect(await verdict(jws)).toMatchObject({ now: 'went_on', answers: 1 });
		const later = bringToWork(house, 1, code);
		await later;
		await house.otium.answers.save('sit1', await later, [answer(true)]);
		await act(house.otium, [
			{
				id: nanoid(),
				sittingId: 'sit1',
				by: { role: 'candidate', id: 'can1' },
				body: { kind: 'hand_in', receipt: 'CCCCC-DDDDD', reason: null }
			}
		]);
		const other = (await signedReceipt(house.otium.db, 'sit1', house.otium.now()))!;
		await change("UPDATE answer_standing SET value = replace(value, 'true', 'false') WHERE sitting_id = 'sit1'");
		expect(await verdict(other)).toMatchObject({ isOurs: true, receipt: 'CCCCC-DDDDD', now: 'changed' });
	});

	it.each([
		['nothing', () => ''],
		['words', () => 'I did hand it in'],
		['another house’s', (jws: string) => `${jws.slice(0, -86)}${'A'.repeat(86)}`],
		['a changed one', (jws: string) => jws.replace(/\.eyJ(.)/, (_, letter) => `.eyJ${letter === 'e' ? 'f' : 'e'}`)],
		[
			'one without a signature',
			(jws: string) => `${Buffer.from('{"alg":"none"}').toString('base64url')}${jws.slice(jws.indexOf('.'))}`
		]
	])('that is %s is not ours', async (_, forge) => {
		await handIn();
		expect(await verdict(forge(await receipt()))).toEqual({ isOurs: false });
	});
});
