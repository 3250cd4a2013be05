import type Database from 'better-sqlite3';
import { giveWay } from '../event-loop';
import { macOf } from './house-key';
import { appendToLogbook, type Entry, type NewEntry } from './log-entries';
import { readerOf, type Query } from './open';
import { perHouse } from './per-house';

/** The kind of entry that says what rows came to. No page shows it: it is for the check of the record. */
export const ROWS_ENTRY = 'rows';

/**
 * What decides results beside the answers, which have a chain of their own. Of some tables only what decides is sealed:
 * what follows from it, or is looked at every second, changes without an entry.
 */
const SEALED: Record<string, readonly string[] | 'all'> = {
	sitting: ['candidate_id', 'administration_id', 'paper_id', 'session_id', 'attempt', 'counts', 'state', 'fold'],
	session: ['administration_id', 'paper_id', 'kind', 'opens', 'closes', 'ended_at', 'rules'],
	form: 'all',
	paper: ['title', 'version', 'content'],
	grant_given: 'all',
	hand_mark: 'all',
	hand_plan: 'all',
	correction: 'all',
	validity: 'all',
	incident_decision: 'all',
	waiver: 'all',
	sign_off: 'all',
	addendum: 'all',
	closing: 'all'
};

type Connection = Database.Database;
type Table = { name: string; keys: string[]; columns: string[] };
/** The connection that writes, and the tables that it watches. */
type Watched = { isWanted: boolean; connection: Connection | null; tables: Table[] };
const watched = perHouse((): Watched => ({ isWanted: true, connection: null, tables: [] }));

/** While the schema is brought up to date nothing is watched: what comes of it is sealed as a whole. */
export function wantsWatching(db: Query, isWanted: boolean): void {
	watched(db).isWanted = isWanted;
}

/**
 * Has every change of a sealed row noted by the connection that makes it. The notes lie in a table of that connection
 * alone: whoever changes the file by other means leaves none, and so no seal that fits.
 */
export function watchRows(db: Query, connection: Connection): void {
	if (!watched(db).isWanted || !isSealing(connection)) return;
	const tables = tablesOf(connection);
	Object.assign(watched(db), { connection, tables });
	connection.function('row_mac', { varargs: true }, (name, id, ...row) =>
		macOf(db, 'rows', JSON.stringify([name, id, row]))
	);
	const notes = tables.flatMap(({ name, keys, columns }) => {
		const of = (row: string, all: readonly string[]) => all.map((column) => `${row}.${column}`).join(', ');
		const note = (act: string, row: string, was: string) =>
			`CREATE TEMP TRIGGER IF NOT EXISTS ${name}_${act.slice(0, 6).toLowerCase()} AFTER ${act} ON main.${name}
			 BEGIN INSERT OR IGNORE INTO row_changed VALUES ('${name}', json_array(${of(row, keys)}), ${was}); END;`;
		// What it was when the transaction began: the first note of a row is the one that stays.
		const before = `row_mac('${name}', json_array(${of('old', keys)}), ${of('old', columns)})`;
		return [
			note('INSERT', 'new', 'NULL'),
			note(`UPDATE OF ${columns.join(', ')}`, 'old', before),
			note('DELETE', 'old', before)
		];
	});
	connection.exec(
		`BEGIN;
		CREATE TEMP TABLE IF NOT EXISTS row_changed (tab TEXT, id TEXT, was TEXT, PRIMARY KEY (tab, id)) WITHOUT ROWID;
		${notes.join('\n')}
		COMMIT;`
	);
}

function tablesOf(connection: Connection): Table[] {
	return Object.entries(SEALED).flatMap(([name, wanted]) => {
		const all = connection.pragma(`main.table_info(${name})`) as { name: string; pk: number }[];
		if (all.length === 0) return [];
		const keys = all.filter(({ pk }) => pk > 0).sort((a, b) => a.pk - b.pk);
		const columns = wanted === 'all' ? all.map((column) => column.name) : [...wanted];
		return [{ name, keys: keys.map((column) => column.name), columns }];
	});
}

/** So many rows go into one entry. */
const IN_ONE = 500;
/** What a row was before and is now; null: there was none, or is none. */
type Sealed = [table: string, id: string, is: string | null, was: string | null];

/**
 * The last thing in every transaction: says in the logbook what the rows that it changed have come to, if it changed any.
 * @param anew all rows are sealed, as an upgrade has changed them by other means; the last step of the schema that it took
 */
export async function sealRows(trx: Query, anew: string | null = null): Promise<void> {
	const { connection, tables } = watched(trx);
	if (!connection?.open) return;
	const noted = connection.prepare('SELECT tab, id, was FROM temp.row_changed').raw().all() as [
		string,
		string,
		string | null
	][];
	if (noted.length === 0) return;
	const byName = new Map(tables.map((table) => [table.name, table]));
	const rows = noted.map(([name, id, was]): Sealed => {
		const is = macOfRow(trx, connection, byName.get(name)!, id);
		return [name, id, is, was];
	});
	const last = await trx('logbook').orderBy('seq', 'desc').first('at');
	const entries: NewEntry[] = [];
	for (let i = 0; i < rows.length; i += IN_ONE) {
		const body = { rows: rows.slice(i, i + IN_ONE), ...(anew !== null && { anew }) };
		entries.push({ at: last?.at ?? 0, by: { role: 'system', id: 'record' }, kind: ROWS_ENTRY, body });
	}
	await appendToLogbook(trx, entries);
	connection.exec('DELETE FROM temp.row_changed');
}

/** Notes every row there is, to be sealed with the transaction that is open. */
export function noteAllRows(db: Query): void {
	const { connection, tables } = watched(db);
	for (const { name, keys } of tables)
		connection!.exec(
			`INSERT OR IGNORE INTO temp.row_changed SELECT '${name}', json_array(${keys.join(', ')}), NULL FROM ${name}`
		);
}

/** null: there is no such row. */
function macOfRow(db: Query, connection: Connection, { name, keys, columns }: Table, id: string): string | null {
	const where = keys.map((key) => `${key} = ?`).join(' AND ');
	const row = connection
		.prepare(`SELECT ${columns.join(', ')} FROM ${name} WHERE ${where}`)
		.raw()
		.get(JSON.parse(id) as unknown[]) as unknown[] | undefined;
	return row ? macOf(db, 'rows', JSON.stringify([name, id, row])) : null;
}

export type RowsVerified = {
	rows: number;
	/** When all rows were sealed anew, as upgrades do, epoch ms. */
	anew: number[];
	broken: string | null;
};

/** Holds every row that decides a result against what the logbook says that it came to. */
export async function verifyRows(db: Query): Promise<RowsVerified> {
	const reader = readerOf(db);
	const tables = isSealing(reader) ? tablesOf(reader) : [];
	if (tables.length === 0) return { rows: 0, anew: [], broken: null };
	const said = new Said(reader);
	// So far as the record reached when this began: on a busy day it grows while it is read.
	const until = reader.prepare('SELECT max(seq) FROM logbook').pluck().get() as number | null;
	while (said.readOn(until ?? 0)) await giveWay();
	let rows = 0;
	const doubtful: [Table, string][] = [];
	for (const table of tables) {
		const ids = reader
			.prepare(`SELECT json_array(${table.keys.join(', ')}) FROM ${table.name}`)
			.pluck()
			.all() as string[];
		const there = new Set(ids);
		for (const [i, id] of [...new Set([...ids, ...said.idsOf(table.name)])].entries()) {
			const mac = there.has(id) ? macOfRow(db, reader, table, id) : null;
			if (mac !== said.of(table.name, id)) doubtful.push([table, id]);
			if (i % IN_ONE === 0) await giveWay();
		}
		rows += ids.length;
	}
	// What has changed while this was read has an entry of its own by now. Nothing comes between these reads.
	while (said.readOn(Number.MAX_SAFE_INTEGER));
	const broken = doubtful.find(([table, id]) => macOfRow(db, reader, table, id) !== said.of(table.name, id));
	return { rows, anew: said.anew, broken: broken ? faultOf(reader, said, ...broken) : said.rewritten };
}

function faultOf(reader: Connection, said: Said, { name, keys }: Table, id: string): string {
	const which = nameOf(name, id);
	const isThere = reader.prepare(`SELECT 1 FROM ${name} WHERE ${keys.map((key) => `${key} = ?`).join(' AND ')}`);
	if (isThere.get(JSON.parse(id) as unknown[]) === undefined)
		return `${which} was taken out without an entry in the record`;
	return said.of(name, id) === null
		? `${which} was put in without an entry in the record`
		: `${which} was changed without an entry in the record`;
}

const nameOf = (table: string, id: string) => `${NAMES[table] ?? table} ${(JSON.parse(id) as unknown[]).join(' ')}`;
const NAMES: Record<string, string> = {
	form: 'the form dealt to sitting',
	grant_given: 'the grant',
	hand_mark: 'the mark',
	hand_plan: 'the plan for marking',
	validity: 'the decision about result',
	incident_decision: 'the decision about incident',
	sign_off: 'the signature',
	closing: 'the closing of administration'
};

/** A file from a version that sealed no rows has none to be held against. */
function isSealing(reader: Connection): boolean {
	return (
		reader.prepare("SELECT 1 FROM sqlite_master WHERE type = 'table' AND name = 'staff_browser'").get() !== undefined
	);
}

/** What the logbook says that rows have come to, read piece by piece. */
class Said {
	readonly anew: number[] = [];
	/** The first row that had become another before the house changed it the next time; null: none had. */
	rewritten: string | null = null;
	#macs = new Map<string, Map<string, string>>();
	#upgrades = new Set<string>();
	/** The one whose entries are being read. */
	#upgrade: string | null = null;
	#seq = 0;

	constructor(private readonly reader: Connection) {}

	/** Reads some entries more, up to that number; false: there are none. */
	readOn(until: number): boolean {
		const entries = this.reader
			.prepare('SELECT seq, at, body FROM logbook WHERE seq > ? AND seq <= ? AND kind = ? ORDER BY seq LIMIT 200')
			.all(this.#seq, until, ROWS_ENTRY) as Pick<Entry, 'seq' | 'at' | 'body'>[];
		for (const { seq, at, body } of entries) {
			this.#seq = seq;
			const { rows, anew } = JSON.parse(body) as { rows: Sealed[]; anew?: string };
			if (anew && this.#upgrade !== anew) this.#noteUpgrade(anew, at, seq);
			if (!anew) this.#upgrade = null;
			for (const [table, id, mac, was] of rows) {
				const macs = this.#macs.get(table) ?? new Map<string, string>();
				if (!anew && was !== (macs.get(id) ?? null))
					this.rewritten ??= `${nameOf(table, id)} was changed without an entry in the record, before entry ${seq}`;
				if (mac === null) macs.delete(id);
				else macs.set(id, mac);
				this.#macs.set(table, macs);
			}
		}
		return entries.length > 0;
	}

	/** Each step of the schema is taken once: rows that are sealed anew for it a second time were changed by somebody. */
	#noteUpgrade(step: string, at: number, seq: number) {
		if (this.#upgrades.has(step))
			this.rewritten ??= `all rows were sealed anew in entry ${seq}, and no upgrade asked for it`;
		this.#upgrades.add(step);
		this.#upgrade = step;
		this.anew.push(at);
	}

	of(table: string, id: string): string | null {
		return this.#macs.get(table)?.get(id) ?? null;
	}

	idsOf(table: string): Iterable<string> {
		return this.#macs.get(table)?.keys() ?? [];
	}
}
