import { copyFileSync, existsSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { KEY_FILE, openDb, readHouseKey } from '$lib/server/db';
import { verifyRecord } from '$lib/server/proof';
import { DATABASE, readPassphrase, unpack } from './backup-file';
import { fail, readOptions } from './options';

const options = readOptions({
	from: { type: 'string' },
	data: { type: 'string', default: 'data/otium' },
	passphrase: { type: 'string' },
	key: { type: 'string' },
	anchor: { type: 'string', multiple: true },
	yes: { type: 'boolean', default: false }
});
const { data } = options;
const isTaken = existsSync(join(data, DATABASE));
const before = `${data}.before`;
if (!options.from || !existsSync(options.from)) fail('Say which backup: ./otium restore --from FILE');
if (isTaken && !options.yes)
	fail(
		`${data} holds data. With --yes it is set aside as ${data}.before, and the backup takes its place. Stop the server first.`
	);
if (existsSync(before) && existsSync(data))
	fail(`${before} is there from an earlier time. Move it away first, so that nothing is lost.`);
for (const file of [options.key, ...(options.anchor ?? [])])
	if (file !== undefined && !existsSync(file)) fail(`There is no file ${file}.`);
const passphrase = readPassphrase(options.passphrase);

// Tried on a copy: a backup that can't be read must not take the place of data that can.
const trial = `${data}.restoring`;
rmSync(trial, { recursive: true, force: true });
function refuse(words: string): never {
	rmSync(trial, { recursive: true, force: true });
	return fail(words);
}
let verified: Awaited<ReturnType<typeof verifyRecord>>;
try {
	await unpack(options.from, trial, passphrase);
	const key = options.key ?? (existsSync(join(data, KEY_FILE)) ? join(data, KEY_FILE) : null);
	if (key && !existsSync(join(trial, KEY_FILE))) copyFileSync(key, join(trial, KEY_FILE));
	// What is of an older version has no key yet, and is given one.
	readHouseKey(trial, true);
	const db = await openDb(join(trial, DATABASE));
	verified = await verifyRecord({ db, dataDir: trial }, options.anchor);
	await db.destroy();
} catch (error) {
	refuse(`This file can't be restored: ${(error as Error).message}`);
}
if (verified.broken) refuse(`In this file ${verified.broken}. It has not been restored.`);
if (existsSync(data)) {
	renameSync(data, before);
}
renameSync(trial, data);
const until = verified.anchoredAt ? `, and reaches as far as the anchor of ${verified.anchoredAt}` : '';
console.log(
	`Restored ${options.from}: ${verified.entries} entries in the logbook and ${verified.answers} answers, as they were written${until}.`
);
