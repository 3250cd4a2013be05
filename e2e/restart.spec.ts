import { mkdtempSync, rmSync } from 'node:fs';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { expect, test } from '@playwright/test';
import { makeCrowdSession } from '../scripts/crowd-session';
import { freePort, startServer } from '../scripts/server-process';
import { Browser as Device } from '../stand-ins/crowd';

test('a server that is stopped answers what it has begun to read, cuts the lines that never end, and goes by itself', async () => {
	const dir = mkdtempSync(join(tmpdir(), 'otium-restart-'));
	const { code, people } = await makeCrowdSession(dir, 3);
	const port = await freePort();
	const server = await startServer({ port, host: '127.0.0.1', dataDir: dir, log: 'silent' });
	const gone = new Promise<number | null>((resolve) => server.once('exit', resolve));

	// One who sits and listens, for as long as there is a line.
	const url = `http://localhost:${port}`;
	const device = new Device(url, 'restart-1');
	const met = await device.post('/sit/api/knock', { code, ...people[1] });
	await device.post('/sit/api/arrive', { note: met.body.note, commandId: 'restart-1', deviceName: 'Laptop' });
	const stream = await fetch(url + device.addressOf('/sit/api/stream'), { headers: { cookie: device.cookieHeader() } });
	expect(stream.headers.get('content-type')).toBe('text/event-stream');
	const listening = stream.text().then(
		() => 'ended',
		() => 'cut'
	);

	// A candidate of whom half a request has come.
	const body = JSON.stringify({ code, number: people[0].number, family: people[0].family });
	const line = connect(port, '127.0.0.1');
	let answer = '';
	line.on('data', (bytes) => (answer += bytes));
	line.write(
		`POST /sit/api/knock HTTP/1.1\r\nHost: localhost:${port}\r\nOrigin: http://localhost:${port}\r\n` +
			`Content-Type: application/json\r\nContent-Length: ${Buffer.byteLength(body)}\r\n\r\n${body.slice(0, 20)}`
	);
	await sleep(500);
	server.kill('SIGTERM');
	await sleep(500);
	expect(server.exitCode).toBeNull();
	await expect(fetch(`http://127.0.0.1:${port}/sit`)).rejects.toThrow();

	line.write(body.slice(20));
	await expect.poll(() => answer).toContain('HTTP/1.1 200');
	expect(answer).toContain(people[0].family);
	expect(await gone).toBe(0);
	expect(await listening).toBe('cut');
	rmSync(dir, { recursive: true });
});
