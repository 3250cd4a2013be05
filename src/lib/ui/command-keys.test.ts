import { afterEach, describe, expect, it, vi } from 'vitest';
import { CommandKeys, sendCommand } from './command-keys';

afterEach(() => vi.unstubAllGlobals());

/** A server that answers as told, and what it was sent. */
function serverThat(...answers: (number | 'lost')[]) {
	const sent: string[] = [];
	vi.stubGlobal('fetch', async (_: string, init: RequestInit) => {
		sent.push(JSON.parse(init.body as string).commandId);
		const answer = answers.shift() ?? 200;
		if (answer === 'lost') throw new TypeError('the line went before the answer came');
		return new Response('{}', { status: answer });
	});
	return sent;
}
const ask = (keys: CommandKeys, minutes = 10) => sendCommand('POST', '/minutes', { minutes }, { keys });

describe('the key of a command', () => {
	it('stays until an answer with a status came, so that pressing again does nothing twice', async () => {
		const keys = new CommandKeys();
		const sent = serverThat('lost', 503, 502, 200, 200);
		for (let i = 0; i < 5; i++) await ask(keys);
		expect(new Set(sent.slice(0, 4)).size).toBe(1);
		expect(sent[4]).not.toBe(sent[0]);
	});

	it('is another after a refusal, which the server remembers, and for another command', async () => {
		const keys = new CommandKeys();
		const sent = serverThat(409, 200, 'lost', 200);
		await ask(keys);
		await ask(keys);
		await ask(keys, 5);
		await ask(keys, 7);
		expect(new Set(sent).size).toBe(4);
	});

	it('has an end: after an hour the person has looked and decided anew, and never more than 200 wait', () => {
		const clock = { at: 0 };
		let n = 0;
		const keys = new CommandKeys(
			() => clock.at,
			() => `k${n++}`
		);
		expect([keys.of('a'), keys.of('a')]).toEqual(['k0', 'k0']);
		clock.at = 61 * 60_000;
		expect(keys.of('a')).toBe('k1');
		for (let i = 0; i < 200; i++) keys.of(`other ${i}`);
		expect(keys.of('a')).not.toBe('k1');
	});
});
