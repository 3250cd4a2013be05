import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { expect, test } from '@playwright/test';
import { makeCrowdSession } from '../scripts/crowd-session';
import { freePort, startServer } from '../scripts/server-process';
import { openDb } from '../src/lib/server/db';
import { accountFor } from '../src/lib/server/closing';
import { verifyLogbook } from '../src/lib/server/logbook';
import { findSession } from '../src/lib/server/session';
import { runCrowd, type Acknowledged } from '../stand-ins/crowd';

test('a server killed three times in mid-exam loses no acknowledged answer, and a hundred candidates go on by themselves', async () => {
	test.setTimeout(300_000);
	const dir = mkdtempSync(join(tmpdir(), 'otium-crash-'));
	const { code, people } = await makeCrowdSession(dir, 100);
	const port = await freePort();
	const start = () => startServer({ port, host: '127.0.0.1', dataDir: dir, log: 'silent' });
	let server = await start();

	const acknowledged: Acknowledged[] = [];
	let stopped = 0;
	// About thirty times as fast as people: answers come all the time, so that a kill always finds some on their way.
	const crowd = runCrowd({
		url: `http://localhost:${port}`,
		code,
		candidates: people,
		seed: 11,
		tempo: 0.012,
		kinds: ['steady', 'slow', 'steady', 'dropper'],
		acknowledged: (one) => acknowledged.push(one)
	});
	for (let kill = 0; kill < 3; kill++) {
		const before = acknowledged.length;
		// Answers are coming in again, and then the plug is pulled at a random moment.
		await expect.poll(() => acknowledged.length - before, { timeout: 60_000 }).toBeGreaterThan(100);
		await sleep(Math.random() * 2_000);
		const gone = new Promise((resolve) => server.once('exit', resolve));
		server.kill('SIGKILL');
		await gone;
		stopped++;
		await sleep(Math.random() * 1_000);
		server = await start();
	}
	const report = await crowd;
	expect(stopped).toBe(3);
	expect(report.handedIn).toBe(100);
	expect(Object.fromEntries(report.refusals)).toEqual({});
	const gone = new Promise((resolve) => server.once('exit', resolve));
	server.kill('SIGKILL');
	await gone;

	const db = await openDb(join(dir, 'otium.sqlite'));
	const rows = await db('answer')
		.join('sitting', 'sitting.id', 'answer.sitting_id')
		.join('candidate', 'candidate.id', 'sitting.candidate_id')
		.select('number', 'seq', 'question_id', 'value');
	const stored = new Map(rows.map((row) => [`${row.number} ${row.seq}`, row]));
	expect(acknowledged.length).toBeGreaterThan(2_000);
	const lost = acknowledged.filter((one) => {
		const row = stored.get(`${one.number} ${one.seq}`);
		return !row || row.question_id !== one.questionId || JSON.parse(row.value).value !== one.value;
	});
	expect(lost).toEqual([]);
	const { ledger } = await accountFor(db, (await findSession(db, 's'))!);
	expect(ledger).toMatchObject({ addsUp: true, expected: 100 });
	expect(ledger.columns.handed_in).toHaveLength(100);
	expect((await verifyLogbook(db)).broken).toBeNull();
	await db.destroy();
	rmSync(dir, { recursive: true });
});
