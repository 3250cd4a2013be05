import { existsSync, mkdirSync } from 'node:fs';
import { dirname } from 'node:path';
import Database from 'better-sqlite3';
import knex, { type Knex } from 'knex';
import { plainLetters } from '$core/names';
import { CLOSED } from './closed-rows';
import { holdHouseKey, openSecret, readHouseKey, WrongHouseKey } from './house-key';
import { keepStatements } from './kept-statements';
import { MIGRATIONS } from './migrations';
import { perHouse } from './per-house';
import { noteAllRows, sealRows, wantsWatching, watchRows } from './row-seals';

export type Db = Knex;
/** A transaction, or the database itself where one statement is enough. */
export type Query = Knex | Knex.Transaction;

/** The database was written by a later version of the program than this one. */
export class NewerDatabase extends Error {
	override readonly name = 'NewerDatabase';
	readonly code = 'newer_database';
	constructor(file: string, unknown: string[]) {
		super(
			`${file} was written by a newer version of Otium (it has ${unknown.join(', ')}). ` +
				'It has not been touched. Install that version, or start with another data folder.'
		);
	}
}

/**
 * Opens the database file, brings it up to date and returns a connection.
 * @throws NewerDatabase when the file is from a later version; nothing is written to it then
 * @throws WrongHouseKey when it was written under another key
 */
export async function openDb(file: string): Promise<Db> {
	mkdirSync(dirname(file), { recursive: true });
	const done = migrationsOf(file);
	const unknown = done.filter((name) => !MIGRATIONS.names.includes(name));
	if (unknown.length > 0) throw new NewerDatabase(file, unknown);
	const db = connectDb(file);
	holdHouseKey(db, readHouseKey(dirname(file), true));
	wantsWatching(db, false);
	// A disk that takes nothing just now keeps nobody from starting who has nothing to bring up to date.
	if (done.length === MIGRATIONS.names.length) {
		await mustBeOurs(db);
		// Not done at the upgrade, as when the disk was full: tried again at each start.
		await emptyFreePages(db).catch(() => {});
		await watch(db);
		return db;
	}
	try {
		// Its lock outlives a server that was killed while it held it, and there is one server to a data folder.
		if (done.length > 0) await db.migrate.forceFreeMigrationsLock({ migrationSource: MIGRATIONS });
		await db.migrate.latest({ migrationSource: MIGRATIONS });
		if (done.length > 0) {
			await db('meta').insert({ key: TO_EMPTY, value: '1' }).onConflict('key').merge();
			await emptyFreePages(db);
		}
	} catch (error) {
		await db.destroy();
		throw error;
	}
	await mustBeOurs(db);
	await watch(db);
	// What an upgrade has changed, or found, is sealed as it is now; the entry says that it was all of it.
	if (done.length > 0) await transact(db, async () => noteAllRows(db), MIGRATIONS.names.at(-1)!);
	return db;
}

/** Has the changes of rows that decide results noted, now that there are tables. */
async function watch(db: Db): Promise<void> {
	wantsWatching(db, true);
	const connection = (await db.client.acquireConnection()) as Connection;
	watchRows(db, connection);
	await db.client.releaseConnection(connection);
}

/** In `meta`, while pages that are free may still hold what was readable before an upgrade. */
const TO_EMPTY = 'free_pages_to_empty';

/** What was readable before a version that seals it would stay on the pages that are free now. */
async function emptyFreePages(db: Db): Promise<void> {
	if (!(await db('meta').where({ key: TO_EMPTY }).first('value'))) return;
	await db.raw('VACUUM');
	await db.raw('PRAGMA wal_checkpoint(TRUNCATE)');
	await db('meta').where({ key: TO_EMPTY }).delete();
}

/** The database itself, if it was written under this house's key. @throws WrongHouseKey */
async function mustBeOurs(db: Db): Promise<Db> {
	const row = await db('meta').where({ key: 'key_check' }).first('value');
	if (row && openSecret(db, row.value) === 'ours') return db;
	await db.destroy();
	throw new WrongHouseKey();
}

/** A connection to a file that is up to date; nothing is written by opening it, so it can look beside a running server. */
export function connectDb(file: string): Db {
	const db = knex({
		client: 'better-sqlite3',
		connection: { filename: file },
		useNullAsDefault: true,
		// One writer is all that SQLite has; with one connection, transactions queue here instead of failing there.
		pool: {
			min: 1,
			max: 1,
			afterCreate: (connection: Connection, done: (error: null, connection: Connection) => void) => {
				configure(connection);
				watchRows(db, connection);
				// The reader goes first, so that the last to close leaves one whole file behind.
				const close = connection.close.bind(connection);
				connection.close = () => {
					readers(db).connection?.close();
					return close();
				};
				done(null, connection);
			}
		},
		acquireConnectionTimeout: 30_000
	});
	holdHouseKey(db, readHouseKey(dirname(file), false));
	return db;
}

type Connection = Database.Database;

const readers = perHouse((): { connection: Connection | null } => ({ connection: null }));

/**
 * A connection beside the one that writes, for the few reads that come with every request: they are answered at once while
 * a long transaction is open, and see what was committed last.
 */
export function readerOf(db: Query): Connection {
	const reader = readers(db);
	if (!reader.connection?.open) {
		const { filename } = (db.client.config as { connection: { filename: string } }).connection;
		reader.connection = new Database(filename, { readonly: true });
		keepStatements(reader.connection);
	}
	return reader.connection;
}

function configure(connection: Connection) {
	connection.pragma('journal_mode = WAL');
	// A commit is acknowledged when it is on the disk, not when it is on its way there.
	connection.pragma('synchronous = FULL');
	connection.pragma('foreign_keys = ON');
	connection.pragma('busy_timeout = 3000');
	connection.pragma('cache_size = -65536');
	connection.function('fold', { deterministic: true }, (text) =>
		typeof text === 'string' ? plainLetters(text) : text
	);
	keepStatements(connection);
}

/**
 * What has been done to the file. Read without opening it for writing: what is from a later version must not be touched,
 * and even a journal-mode change would touch it.
 */
function migrationsOf(file: string): string[] {
	if (!existsSync(file)) return [];
	const reader = new Database(file, { readonly: true });
	try {
		const table = reader.prepare("SELECT name FROM sqlite_master WHERE name = 'knex_migrations'").get();
		if (!table) return [];
		const done = reader.prepare('SELECT name FROM knex_migrations').all() as { name: string }[];
		return done.map((row) => row.name);
	} finally {
		reader.close();
	}
}

/** SQLite leaves what it deletes on the disk until the place is needed; during this work it is written over. */
export async function overwriting(db: Db, work: () => Promise<void>): Promise<void> {
	await db.raw('PRAGMA secure_delete = ON');
	await work().finally(() => db.raw('PRAGMA secure_delete = OFF'));
}

/**
 * Everything in `work`, or nothing of it. When the disk is full SQLite has rolled back by itself, and rolling back once
 * more fails; whoever asked is told the first failure, which says what is the matter. Rows that decide results are sealed
 * with it.
 * @param anew every row is, after an upgrade to this step of the schema
 */
export async function transact<T>(
	db: Db,
	work: (trx: Knex.Transaction) => Promise<T>,
	anew: string | null = null
): Promise<T> {
	let cause: unknown;
	try {
		return await db.transaction(async (trx) => {
			try {
				const result = await work(trx);
				await sealRows(trx, anew);
				return result;
			} catch (error) {
				cause = error;
				throw error;
			}
		});
	} catch (error) {
		throw cause ?? error;
	}
}

/** A copy of a live database, consistent as of one instant. */
export async function backupDb(from: string, to: string): Promise<void> {
	mkdirSync(dirname(to), { recursive: true });
	const source = new Database(from, { readonly: true });
	try {
		await source.backup(to);
	} finally {
		source.close();
	}
}

/** Writes what is only worth writing: a disk that takes nothing just now holds up nothing else. */
export async function writeIfPossible(work: PromiseLike<unknown>): Promise<void> {
	try {
		await work;
	} catch (error) {
		if (!isUnavailable(error)) throw error;
	}
}

/** A write to an administration that is closed. */
export function isOfClosed(error: unknown): boolean {
	return error instanceof Error && error.message.includes(CLOSED);
}

/** What the disk or the database says when it cannot take a write just now; nothing was lost, trying again may work. */
export function isUnavailable(error: unknown): boolean {
	const code = (error as { code?: string }).code ?? '';
	return /^SQLITE_(BUSY|FULL|IOERR|CANTOPEN|READONLY|NOMEM|LOCKED)/.test(code);
}
