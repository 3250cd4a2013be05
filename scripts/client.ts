import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { hostname } from 'node:os';
import { ClientDevice, openSealedClient } from '../stand-ins/sealed-client';
import { fail, readOptions } from './options';

const { url, code, keep, version } = readOptions({
	url: { type: 'string', default: 'http://localhost:4600' },
	/** Once on each device. */
	code: { type: 'string' },
	keep: { type: 'string', default: 'data/client-device.json' },
	version: { type: 'string' }
});
if (!code && !existsSync(keep))
	fail('This device has not enrolled. Make a code under Prepare, Sealed clients: ./otium client --code CODE');
try {
	const device = code
		? await ClientDevice.enrol(url, code, hostname(), version)
		: ClientDevice.of(url, readFileSync(keep, 'utf8'), version);
	if (code) writeFileSync(keep, device.kept, { mode: 0o600 });
	await openSealedClient(url, device, { args: process.getuid?.() === 0 ? ['--no-sandbox'] : [] });
	console.log(`The sealed client is open on ${url}. Close it with Ctrl+C.`);
} catch (error) {
	fail(error instanceof Error ? error.message : String(error));
}
