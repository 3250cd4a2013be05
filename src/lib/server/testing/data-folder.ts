import { createHash } from 'node:crypto';
import { copyFileSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { connectDb, KEY_FILE, openDb, openSecret, readHouseKey, sealSecret } from '../db';

const DATABASE = 'otium.sqlite';
const KEY = createHash('sha256').update('the key of houses for tests').digest('base64url');
const newFolder = () => mkdtempSync(join(tmpdir(), 'otium-test-'));

const going: string[] = [];
process.once('exit', () => {
	for (const dir of going) rmSync(dir, { recursive: true, force: true });
});
/** This folder is needed as long as the process runs. */
export const goesAtExit = (dir: string): void => void going.push(dir);

/** As a first start leaves it, with what is sealed in it: the one of this process. */
let first: Promise<{ dir: string; sealed: { key: string; value: string }[] }> | null = null;

async function firstStart() {
	const dir = newFolder();
	goesAtExit(dir);
	const db = await openDb(join(dir, DATABASE));
	const rows: { key: string; value: string }[] = await db('meta').select('key', 'value');
	const sealed = rows.map(({ key, value }) => ({ key, value: openSecret(db, value)! }));
	await db.destroy();
	return { dir, sealed };
}

/**
 * A new data folder. Houses of tests have one key, so that what follows from it, as the forms that are dealt, is the same in
 * each run; `ownKey` gives one that no other has. Bringing an empty file up to date takes longer than most tests, so it is done
 * once in a process, and copied.
 */
export async function newDataFolder({ ownKey = false } = {}): Promise<string> {
	first ??= firstStart();
	const { dir: from, sealed } = await first;
	const dir = newFolder();
	copyFileSync(join(from, DATABASE), join(dir, DATABASE));
	if (!ownKey) writeFileSync(join(dir, KEY_FILE), `${KEY}\n`, { mode: 0o600 });
	readHouseKey(dir, true);
	const db = connectDb(join(dir, DATABASE));
	for (const { key, value } of sealed)
		await db('meta')
			.where({ key })
			.update({ value: sealSecret(db, value) });
	await db.destroy();
	return dir;
}

/** A copy of a data folder that nobody has open, for whoever made it once and needs it again. */
export function copyOfFolder(from: string): string {
	const dir = newFolder();
	for (const name of [DATABASE, KEY_FILE]) copyFileSync(join(from, name), join(dir, name));
	return dir;
}
