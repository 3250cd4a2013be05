import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { accountOfRun } from '../scripts/account-of-run';
import { makeCrowdSession } from '../scripts/crowd-session';
import { freePort, startServer } from '../scripts/server-process';
import { openDb } from '../src/lib/server/db';
import { openEnrolment } from '../src/lib/server/identity';
import { startOtium } from '../src/lib/server/otium';
import { runCrowd, type Acknowledged } from '../stand-ins/crowd';

test('a crowd of fifteen sits a sealed paper with the sealed client; without it nobody is shown a question', async () => {
	const dir = mkdtempSync(join(tmpdir(), 'otium-sealed-'));
	const { code, people } = await makeCrowdSession(dir, 15);
	const otium = await startOtium({ dataDir: dir, sweep: false, logLevel: 'silent' });
	const { code: clientCode } = await openEnrolment(otium, { role: 'coordinator', id: 'trial' }, 'q');
	await otium.db('session').update({
		rules: otium.db.raw("json_set(rules, '$.lockdown.level', 'sealed', '$.lockdown.clientVersion', '2.0')")
	});
	await otium.stop();
	const port = await freePort();
	const server = await startServer({ port, host: '127.0.0.1', dataDir: dir, log: 'silent' });
	const acknowledged: Acknowledged[] = [];
	const crowd = {
		url: `http://localhost:${port}`,
		code,
		candidates: people,
		seed: 3,
		tempo: 0.01,
		kinds: ['steady' as const],
		acknowledged: (one: Acknowledged) => void acknowledged.push(one)
	};
	try {
		const bare = await runCrowd(crowd);
		expect(bare.handedIn).toBe(0);
		expect(acknowledged).toEqual([]);
		expect(Object.fromEntries(bare.refusals)).toEqual({ client_unproven: 15 });
		// By a code that nobody made no device enrols.
		const forged = await runCrowd({ ...crowd, seed: 4, clientCode: `${clientCode.slice(0, -3)}AAA` });
		expect(forged.handedIn).toBe(0);
		const sealed = await runCrowd({ ...crowd, seed: 5, clientCode });
		expect(Object.fromEntries(sealed.refusals)).toEqual({});
		expect(sealed.handedIn).toBe(15);
	} finally {
		const gone = new Promise((resolve) => server.once('exit', resolve));
		server.kill('SIGKILL');
		await gone;
	}
	const db = await openDb(join(dir, 'otium.sqlite'));
	expect(await accountOfRun(db, dir, 's', acknowledged)).toMatchObject({
		lost: [],
		twoStates: [],
		handedIn: 15,
		recordBroken: null
	});
	await db.destroy();
	rmSync(dir, { recursive: true });
});
