import { spawnSync } from 'node:child_process';
import {
	copyFileSync,
	existsSync,
	mkdirSync,
	mkdtempSync,
	readdirSync,
	readFileSync,
	rmSync,
	statSync,
	symlinkSync,
	writeFileSync
} from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import Database from 'better-sqlite3';
import { create } from 'tar';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { openDb } from '$lib/server/db';
import { anchorOf, headOf } from '$lib/server/proof';
import { makeCrowdSession } from './crowd-session';
import { commandFile } from './prepare.mjs';

// Each command is a program of its own, which a busy machine takes seconds to start.
vi.setConfig({ testTimeout: 180_000 });
const dir = mkdtempSync(join(tmpdir(), 'otium-commands-'));
const data = join(dir, 'data');
let code = '';
let folder = '';
beforeAll(async () => {
	folder = dirname((await commandFile('demo'))!);
	code = (await makeCrowdSession(data, 3)).code;
});
afterAll(() => rmSync(dir, { recursive: true }));

/** Runs a command's script as ./otium does once everything is ready. */
function run(name: string, ...args: string[]) {
	const done = spawnSync(process.execPath, [join(folder, `${name}.js`), ...args], {
		encoding: 'utf8',
		timeout: 60_000
	});
	return { code: done.status, out: `${done.stdout}${done.stderr}`.trim() };
}
const otium = (...args: string[]) => {
	const done = spawnSync(process.execPath, ['scripts/otium.mjs', ...args], { encoding: 'utf8', timeout: 60_000 });
	return { code: done.status, out: `${done.stdout}${done.stderr}`.trim() };
};

describe('./otium', () => {
	const COMMANDS = [
		'demo',
		'start',
		'test',
		'check',
		'crowd',
		'client',
		'screenshots',
		'bench',
		'staff',
		'backup',
		'restore'
	];

	it('lists its commands, each of which tells its own options without installing anything', () => {
		const help = otium('--help');
		expect(help.code).toBe(0);
		for (const name of COMMANDS) {
			expect(help.out).toContain(`  ${name}`);
			expect(otium(name, '--help')).toMatchObject({ code: 0, out: expect.stringContaining(`Usage: ./otium ${name}`) });
		}
	});

	it('does not guess at a command that is not there', () => {
		expect(otium('dmeo')).toMatchObject({ code: 2, out: expect.stringContaining('There is no command "dmeo".') });
	});
});

describe('options', () => {
	it.each([
		['demo', ['--prot', '1'], "Unknown option '--prot'"],
		['demo', ['--port', 'eighty'], '--port takes a whole number up to 65535, not "eighty".'],
		['crowd', [], 'Say which session by its door code'],
		['crowd', ['--session', 'K7PX-3MQ', '--data', '/nowhere'], 'There is no database in /nowhere.'],
		['client', ['--keep', '/nowhere'], 'This device has not enrolled.'],
		['backup', [], 'Say where to'],
		['restore', ['--from', '/nowhere'], 'Say which backup'],
		['test', ['--only', 'half'], '--only takes unit or e2e, not "half".']
	])('%s %j is refused in words', (name, args, words) => {
		const done = run(name, ...args);
		expect(done.code).toBe(2);
		expect(done.out).toContain(words);
	});

	it('a port in use is told, with one that may be free', async () => {
		const other = createServer();
		await new Promise<void>((resolve) => other.listen(0, '127.0.0.1', resolve));
		const { port } = other.address() as { port: number };
		for (const name of ['demo', 'start']) {
			const done = run(name, '--port', String(port), '--host', '127.0.0.1', '--data', join(dir, name));
			expect(done).toMatchObject({
				code: 2,
				out: `Port ${port} is in use. Choose another: ./otium ${name} --port ${port + 1}`
			});
			expect(existsSync(join(dir, name))).toBe(false);
		}
		other.close();
	});

	it('a folder that is not a demo’s is never made into one', () => {
		const done = run('demo', '--port', '0', '--data', data);
		expect(done).toMatchObject({ code: 2, out: expect.stringContaining('holds data that is not a demo') });
		expect(existsSync(join(data, 'otium.sqlite'))).toBe(true);
	});

	it('a code that nobody has is told as the board would show it', () => {
		expect(run('crowd', '--session', 'k7px3mq', '--data', data).out).toBe(
			'No session is open with the code K7PX-3MQ. Look at the door board.'
		);
		expect(code).toHaveLength(7);
	});
});

describe('staff', () => {
	it('lets somebody in again who has lost every way, and says who there is', () => {
		expect(run('staff', 'reset', 'Trial', '--data', data)).toMatchObject({
			code: 0,
			out: expect.stringMatching(/signs in as "trial" with [\w-]{16}, shown this once/)
		});
		expect(run('staff', 'reset', 'nobody', '--data', data)).toMatchObject({
			code: 2,
			out: expect.stringContaining('Nobody signs in as "nobody". There are: trial.')
		});
		expect(run('staff', 'remove', 'trial').out).toContain('Say whom: ./otium staff reset NAME');
	});
});

describe('backup and restore', () => {
	const copy = join(dir, 'copy.otium');
	const passphrase = join(dir, 'passphrase');
	const key = join(data, 'house.key');
	const restore = (target: string, ...more: string[]) =>
		run('restore', '--from', copy, '--data', join(dir, target), ...more);
	/** Somebody who has the file and not the key. */
	const tamper = (target: string, ...statements: string[]) => {
		const raw = new Database(join(dir, target, 'otium.sqlite'));
		for (const table of ['logbook', 'answer', 'answer_group'])
			for (const act of ['update', 'delete']) raw.exec(`DROP TRIGGER IF EXISTS ${table}_no_${act}`);
		for (const statement of statements) raw.exec(statement);
		raw.pragma('journal_mode = DELETE');
		raw.close();
	};

	it('copies all that lies there, never writes over a copy, and puts it back with what was there set aside', () => {
		mkdirSync(join(data, 'photos'), { recursive: true });
		writeFileSync(join(data, 'photos', 'one'), 'a photo');
		expect(run('backup', '--data', data, '--to', copy)).toMatchObject({
			code: 0,
			out: expect.stringContaining('The key of the house is not in it.')
		});
		expect(statSync(copy).mode & 0o777).toBe(0o600);
		expect(run('backup', '--data', data, '--to', copy)).toMatchObject({
			code: 2,
			out: expect.stringContaining('exists already')
		});
		expect(restore('keyless').out).toContain('The key of this house does not open this database');
		expect(existsSync(join(dir, 'keyless'))).toBe(false);
		expect(restore('restored', '--key', key).out).toMatch(
			/Restored .*: \d+ entries in the logbook and \d+ answers, as they were written.*\.$/
		);
		expect(readFileSync(join(dir, 'restored', 'photos', 'one'), 'utf8')).toBe('a photo');
		expect(restore('restored')).toMatchObject({ code: 2, out: expect.stringContaining('With --yes it is set aside') });
		expect(restore('restored', '--yes').code).toBe(0);
		expect(existsSync(join(dir, 'restored.before', 'otium.sqlite'))).toBe(true);
		expect(restore('restored', '--yes').out).toContain('is there from an earlier time');
	});

	it('encrypts under a passphrase, the key of the house within, and opens under no other', () => {
		const secret = join(dir, 'secret.otium');
		writeFileSync(passphrase, 'halyard anchor bowline sheet\n');
		const made = run('backup', '--data', data, '--to', secret, '--passphrase', passphrase);
		expect(made.out).toContain('The key of the house is in it');
		const text = readFileSync(secret, 'latin1');
		expect(text.startsWith('age-encryption.org/v1\n-> scrypt ')).toBe(true);
		expect(text).not.toContain('SQLite');
		const from = ['--from', secret, '--data', join(dir, 'opened')];
		expect(run('restore', ...from).out).toContain('This backup is encrypted');
		writeFileSync(join(dir, 'wrong'), 'another passphrase that is long');
		expect(run('restore', ...from, '--passphrase', join(dir, 'wrong')).out).toContain("can't be restored");
		expect(run('restore', ...from, '--passphrase', passphrase).code).toBe(0);
		expect(readFileSync(join(dir, 'opened', 'house.key'), 'utf8')).toBe(readFileSync(key, 'utf8'));
	});

	it('refuses what is no backup; what was there stays', () => {
		restore('kept', '--key', key);
		const before = readFileSync(join(dir, 'kept', 'otium.sqlite'));
		const nonsense = join(dir, 'nonsense');
		writeFileSync(nonsense, 'this is no database, however long it may be made to look');
		expect(run('restore', '--from', nonsense, '--data', join(dir, 'kept'), '--yes').out).toContain("can't be restored");
		expect(readFileSync(join(dir, 'kept', 'otium.sqlite')).equals(before)).toBe(true);
	});

	it('refuses a crafted one: links that lead out, names that are not ours, another house’s', async () => {
		restore('mine', '--key', key);
		const outside = join(dir, 'outside');
		mkdirSync(outside, { recursive: true });
		const pack = (name: string, make: (folder: string) => string[]) => {
			const folder = join(dir, `crafted-${name}`);
			mkdirSync(folder, { recursive: true });
			copyFileSync(join(dir, 'mine', 'otium.sqlite'), join(folder, 'otium.sqlite'));
			const file = join(dir, `${name}.tar.gz`);
			create({ gzip: true, cwd: folder, file, sync: true, preservePaths: true }, ['otium.sqlite', ...make(folder)]);
			return run('restore', '--from', file, '--data', join(dir, `from-${name}`), '--key', key).out;
		};
		const linked = pack('linked', (folder) => {
			symlinkSync(outside, join(folder, 'media'));
			return ['media'];
		});
		expect(linked).toContain('media is nothing that a backup holds');
		const foreign = pack('foreign', (folder) => {
			writeFileSync(join(folder, 'start.sh'), 'x');
			return ['start.sh'];
		});
		expect(foreign).toContain('start.sh is nothing that a backup holds');
		writeFileSync(join(dir, 'beside.txt'), 'x');
		const above = pack('above', () => ['../beside.txt']);
		expect(above).toContain("can't be restored");
		expect(readdirSync(outside)).toEqual([]);

		const other = join(dir, 'other-house');
		mkdirSync(other);
		await (await openDb(join(other, 'otium.sqlite'))).destroy();
		const file = join(dir, 'other.tar.gz');
		create({ gzip: true, cwd: other, file, sync: true }, ['otium.sqlite', 'house.key']);
		const from = ['--from', file, '--yes', '--data'];
		expect(run('restore', ...from, join(dir, 'mine')).out).toContain("another house's");
		expect(readFileSync(join(dir, 'mine', 'house.key'), 'utf8')).toBe(readFileSync(key, 'utf8'));
		expect(run('restore', ...from, join(dir, 'a-new-folder')).code).toBe(0);
	});

	it('says what an older one does not reach', async () => {
		restore('older', '--key', key);
		const db = await openDb(join(dir, 'older', 'otium.sqlite'));
		const { entries, ...head } = await headOf(db, Date.now());
		writeFileSync(
			join(dir, 'older', 'anchors.log'),
			`${JSON.stringify(anchorOf(db, { ...head, entries: entries + 7 }))}\n`
		);
		await db.destroy();
		const { code, out } = run('restore', '--from', copy, '--data', join(dir, 'older'), '--yes');
		expect(code).toBe(0);
		expect(out).toContain(`What was here reached further: to entry ${entries + 7}`);
	});

	it('finds an end that was cut off, by an anchor', async () => {
		restore('cut', '--key', key);
		const anchor = join(dir, 'anchor');
		const db = await openDb(join(dir, 'cut', 'otium.sqlite'));
		writeFileSync(anchor, JSON.stringify(anchorOf(db, await headOf(db, Date.now()))));
		await db.destroy();
		tamper('cut', 'DELETE FROM logbook WHERE seq > 0');
		const file = join(dir, 'cut.changed');
		run('backup', '--data', join(dir, 'cut'), '--to', file);
		const from = ['--from', file, '--key', key, '--data'];
		// Without one it is found by the rows that the record speaks of no more.
		expect(run('restore', ...from, join(dir, 'cut-2'))).toMatchObject({
			code: 2,
			out: expect.stringContaining('without an entry in the record')
		});
		expect(run('restore', ...from, join(dir, 'cut-3'), '--anchor', anchor).out).toMatch(
			/the logbook had \d+ entries at .*; what came last is missing/
		);
	});

	it('a database from a newer version, or under another key, stops the server in words, untouched', () => {
		restore('newer', '--key', key);
		const file = join(dir, 'newer', 'otium.sqlite');
		writeFileSync(join(dir, 'newer', 'house.key'), `${'A'.repeat(43)}\n`);
		expect(run('start', '--port', '0', '--data', join(dir, 'newer'))).toMatchObject({
			code: 2,
			out: expect.stringContaining('The key of this house does not open this database')
		});
		const raw = new Database(file);
		raw.prepare("INSERT INTO knex_migrations (name, batch, migration_time) VALUES ('999-later', 9, 0)").run();
		raw.pragma('journal_mode = DELETE');
		raw.close();
		const before = readFileSync(file);
		expect(run('start', '--port', '0', '--data', join(dir, 'newer'))).toMatchObject({
			code: 2,
			out: expect.stringContaining('written by a newer version of Otium (it has 999-later)')
		});
		expect(readFileSync(file).equals(before)).toBe(true);
	});
});
