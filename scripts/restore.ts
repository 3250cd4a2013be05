import { copyFileSync, existsSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { KEY_FILE, openDb, readHouseKey } from '$lib/server/db';
import { furthestAnchor, verifyRecord } from '$lib/server/proof';
import { DATABASE, readPassphrase, unpack } from './backup-file';
import { fail, readOptions } from './options';

const options = readOptions({
	from: { type: 'string' },
	data: { type: 'string', default: 'data/otium' },
	passphrase: { type: 'string' },
	key: { type: 'string' },
	anchor: { type: 'string', multiple: true },
	'other-house': { type: 'boolean', default: false },
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
/** How far the data reached that this takes the place of. */
let further: Awaited<ReturnType<typeof furthestAnchor>> = null;
let verified: Awaited<ReturnType<typeof verifyRecord>>;
try {
	await unpack(options.from, trial, passphrase);
	const key = options.key ?? (existsSync(join(data, KEY_FILE)) ? join(data, KEY_FILE) : null);
	const own = key && readFileSync(key, 'utf8').trim();
	const brought = existsSync(join(trial, KEY_FILE)) ? readFileSync(join(trial, KEY_FILE), 'utf8').trim() : null;
	if (own && brought !== null && own !== brought && !options['other-house'])
		refuse(
			`This backup is another house's: it brings a key of its own. Restore it into a folder of its own with --data, or say --other-house.`
		);
	if (key && brought === null) copyFileSync(key, join(trial, KEY_FILE));
	// What is of an older version has no key yet, and is given one.
	readHouseKey(trial, true);
	const db = await openDb(join(trial, DATABASE));
	verified = await verifyRecord({ db, dataDir: trial }, options.anchor);
	further = await furthestAnchor(db, [join(data, 'anchors.log')]);
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
for (const at of verified.sealedAnew)
	console.log(
		`The rows that decide results were sealed as an upgrade found them at ${at}; before that nothing proves them.`
	);
if (further && further.entries > verified.entries)
	console.log(
		`What was here reached further: to entry ${further.entries}, at ${further.at}. It lies in ${before}, with all that came after this backup.`
	);
