import { copyFileSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { connectDb, openDb, openSecret, readHouseKey, sealSecret } from '../db';

const DATABASE = 'otium.sqlite';
const newFolder = () => mkdtempSync(join(tmpdir(), 'otium-test-'));

/** As a first start leaves it, with what is sealed in it: the one of this process. */
let first: Promise<{ dir: string; sealed: { key: string; value: string }[] }> | null = null;

async function firstStart() {
	const dir = newFolder();
	process.once('exit', () => rmSync(dir, { recursive: true, force: true }));
	const db = await openDb(join(dir, DATABASE));
	const rows: { key: string; value: string }[] = await db('meta').select('key', 'value');
	const sealed = rows.map(({ key, value }) => ({ key, value: openSecret(db, value)! }));
	await db.destroy();
	return { dir, sealed };
}

/**
 * A new data folder, under a key of its own. Bringing an empty file up to date takes longer than most tests, so it is done
 * once in a process, and copied.
 */
export async function newDataFolder(): Promise<string> {
	first ??= firstStart();
	const { dir: from, sealed } = await first;
	const dir = newFolder();
	copyFileSync(join(from, DATABASE), join(dir, DATABASE));
	readHouseKey(dir, true);
	const db = connectDb(join(dir, DATABASE));
	for (const { key, value } of sealed)
		await db('meta')
			.where({ key })
			.update({ value: sealSecret(db, value) });
	await db.destroy();
	return dir;
}
