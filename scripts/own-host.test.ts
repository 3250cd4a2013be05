import { networkInterfaces } from 'node:os';
import { expect, it } from 'vitest';
import { isOwnHost } from './own-host.mjs';

const mine = Object.values(networkInterfaces()).flatMap((list) => (list ?? []).map((one) => one.address));

it.each(['localhost:4600', '127.0.0.1', '[::1]:4600', 'LOCALHOST', 'exams.saltmarsh.example:8080'])(
	'%s is this house',
	(host) => {
		// Not every machine has an address of the sixth version.
		if (host.startsWith('[') && !mine.includes('::1')) return;
		expect(isOwnHost(host, ['exams.saltmarsh.example'])).toBe(true);
	}
);
it.each([
	undefined,
	'',
	'evil.example',
	'localhost.evil.example',
	'127.0.0.1.evil.example',
	'evil.example@localhost@x',
	'a b'
])('%s is not', (host) => expect(isOwnHost(host, ['exams.saltmarsh.example'])).toBe(false));
