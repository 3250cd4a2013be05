import { readFileSync } from 'node:fs';
import { openSealedClient } from '../stand-ins/sealed-client';
import { fail, readOptions } from './options';

const { url, key, version } = readOptions({
	url: { type: 'string', default: 'http://localhost:4600' },
	/** A file, so that the key stands in no list of processes. */
	key: { type: 'string' },
	version: { type: 'string' }
});
if (!key) fail('--key takes the file that holds the site’s key. Make one under Prepare, Sealed clients.');

let text = '';
try {
	text = readFileSync(key!, 'utf8').trim();
} catch {
	fail(`${key} can’t be read. It holds the key as it was shown once: one line.`);
}
try {
	await openSealedClient(url!, text, { version, args: process.getuid?.() === 0 ? ['--no-sandbox'] : [] });
	console.log(`The sealed client is open on ${url}. Close it with Ctrl+C.`);
} catch (error) {
	fail(error instanceof Error ? error.message : String(error));
}
