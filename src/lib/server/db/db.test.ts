import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { describe, expect, it } from 'vitest';
import { backupDb, NewerDatabase, openDb } from '.';

describe('the database file', () => {
	it('is durable as promised: WAL, FULL, foreign keys', async () => {
		const dir = mkdtempSync(join(tmpdir(), 'otium-db-'));
		const db = await openDb(join(dir, 'otium.sqlite'));
		const pragma = async (name: string) => Object.values((await db.raw(`PRAGMA ${name}`))[0])[0];
		// SQLite's own numbers: synchronous 2 is FULL.
		expect([await pragma('journal_mode'), await pragma('synchronous'), await pragma('foreign_keys')]).toEqual([
			'wal',
			2,
			1
		]);
		await db.destroy();
		rmSync(dir, { recursive: true });
	});

	it('a query that ran before sees a column that has joined its table since', async () => {
		const dir = mkdtempSync(join(tmpdir(), 'otium-db-'));
		const db = await openDb(join(dir, 'otium.sqlite'));
		const rows = () => db('meta').where({ key: 'tide' }).select('*');
		await db('meta').insert({ key: 'tide', value: '4.1' });
		expect(await rows()).toEqual([{ key: 'tide', value: '4.1' }]);
		await db.schema.alterTable('meta', (table) => table.text('unit').defaultTo('m'));
		expect(await rows()).toEqual([{ key: 'tide', value: '4.1', unit: 'm' }]);
		await db.destroy();
		rmSync(dir, { recursive: true });
	});

	it('from a newer version is refused and not touched', async () => {
		const dir = mkdtempSync(join(tmpdir(), 'otium-db-'));
		const file = join(dir, 'otium.sqlite');
		await (await openDb(file)).destroy();
		const raw = new Database(file);
		raw.pragma('journal_mode = DELETE');
		raw.prepare("INSERT INTO knex_migrations (name, batch, migration_time) VALUES ('999-from-the-future', 9, 0)").run();
		raw.close();
		const before = readFileSync(file);
		await expect(openDb(file)).rejects.toThrow(NewerDatabase);
		await expect(openDb(file)).rejects.toThrow(/newer version.*999-from-the-future.*not been touched/);
		expect(readFileSync(file).equals(before)).toBe(true);
		rmSync(dir, { recursive: true });
	});

	it('opens after a server was killed while it held the lock of the migrations', async () => {
		const dir = mkdtempSync(join(tmpdir(), 'otium-db-'));
		const file = join(dir, 'otium.sqlite');
		await (await openDb(file)).destroy();
		const raw = new Database(file);
		raw.prepare('UPDATE knex_migrations_lock SET is_locked = 1').run();
		raw.close();
		const db = await openDb(file);
		expect(await db('meta').select('key')).toBeInstanceOf(Array);
		await db.destroy();
		rmSync(dir, { recursive: true });
	});

	it('opens while nothing can be written, where there is nothing to bring up to date', async () => {
		const dir = mkdtempSync(join(tmpdir(), 'otium-db-'));
		const file = join(dir, 'otium.sqlite');
		await (await openDb(file)).destroy();
		const other = new Database(file);
		other.exec('BEGIN IMMEDIATE');
		const db = await openDb(file);
		expect(await db('meta').select('key')).toBeInstanceOf(Array);
		await db.destroy();
		other.exec('ROLLBACK');
		other.close();
		rmSync(dir, { recursive: true });
	});

	it('can be copied while it is in use', async () => {
		const dir = mkdtempSync(join(tmpdir(), 'otium-db-'));
		const file = join(dir, 'otium.sqlite');
		const db = await openDb(file);
		await db('meta').insert({ key: 'a', value: '1' });
		await backupDb(file, join(dir, 'copy.sqlite'));
		const copy = await openDb(join(dir, 'copy.sqlite'));
		expect(await copy('meta').where({ key: 'a' }).first()).toEqual({ key: 'a', value: '1' });
		await Promise.all([db.destroy(), copy.destroy()]);
		rmSync(dir, { recursive: true });
	});
});
