import { copyFileSync, existsSync, mkdirSync, renameSync, rmSync } from 'node:fs';
import { openDb } from '$lib/server/db';
import { verifyLogbook } from '$lib/server/logbook';
import { fail, readOptions } from './options';

const options = readOptions({
	from: { type: 'string' },
	data: { type: 'string', default: 'data/otium' },
	yes: { type: 'boolean', default: false }
});
const target = `${options.data}/otium.sqlite`;
if (!options.from || !existsSync(options.from)) fail('Say which backup: ./otium restore --from FILE');
if (existsSync(target) && !options.yes)
	fail(
		`${target} exists. With --yes it is set aside as ${target}.before, and the backup takes its place. Stop the server first.`
	);

// Tried on a copy: a backup that can't be read must not take the place of data that can.
mkdirSync(options.data, { recursive: true });
const trial = `${target}.restoring`;
copyFileSync(options.from, trial);
let verified: Awaited<ReturnType<typeof verifyLogbook>>;
try {
	const db = await openDb(trial);
	verified = await verifyLogbook(db);
	await db.destroy();
} catch (error) {
	rmSync(trial, { force: true });
	fail(`This file can't be restored: ${(error as Error).message}`);
}
if (verified.broken) {
	rmSync(trial, { force: true });
	fail(
		`The logbook in this file breaks at entry ${verified.broken.seq}: ${verified.broken.why}. It has not been restored.`
	);
}
if (existsSync(target)) renameSync(target, `${target}.before`);
for (const tail of ['-wal', '-shm']) rmSync(target + tail, { force: true });
renameSync(trial, target);
for (const tail of ['-wal', '-shm']) rmSync(trial + tail, { force: true });
console.log(`Restored ${options.from}: ${verified.entries} entries in the logbook, chain unbroken.`);
