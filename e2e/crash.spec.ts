import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { expect, test } from '@playwright/test';
import { accountOfRun } from '../scripts/account-of-run';
import { makeCrowdSession } from '../scripts/crowd-session';
import { freePort, startServer } from '../scripts/server-process';
import { openDb } from '../src/lib/server/db';
import { runCrowd, type Acknowledged } from '../stand-ins/crowd';

test('a server killed three times in mid-exam loses no acknowledged answer, and fifty candidates go on by themselves', async () => {
	test.setTimeout(300_000);
	const dir = mkdtempSync(join(tmpdir(), 'otium-crash-'));
	const { code, people } = await makeCrowdSession(dir, 50);
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
	expect(report.handedIn).toBe(50);
	expect(Object.fromEntries(report.refusals)).toEqual({});
	const gone = new Promise((resolve) => server.once('exit', resolve));
	server.kill('SIGKILL');
	await gone;

	const db = await openDb(join(dir, 'otium.sqlite'));
	expect(acknowledged.length).toBeGreaterThan(1_000);
	expect(await accountOfRun(db, dir, 's', acknowledged)).toEqual({
		lost: [],
		twoStates: [],
		ledgerAddsUp: true,
		handedIn: 50,
		recordBroken: null
	});
	await db.destroy();
	rmSync(dir, { recursive: true });
});
