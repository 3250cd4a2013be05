import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { makeCrowdSession } from './crowd-session';

const dir = mkdtempSync(join(tmpdir(), 'otium-commands-'));
const data = join(dir, 'data');
let code = '';
beforeAll(async () => {
	code = (await makeCrowdSession(data, 3)).code;
});
afterAll(() => rmSync(dir, { recursive: true }));

/** Runs a command's script as ./otium does once everything is ready. */
function run(name: string, ...args: string[]) {
	const done = spawnSync(process.execPath, ['--import', 'tsx', `scripts/${name}.ts`, ...args], {
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
	const COMMANDS = ['demo', 'start', 'test', 'check', 'crowd', 'client', 'screenshots', 'bench', 'backup', 'restore'];

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
		['client', [], '--key takes the file'],
		['client', ['--key', '/nowhere'], '/nowhere can’t be read.'],
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

describe('backup and restore', () => {
	const copy = join(dir, 'copy.sqlite');

	it('copies, never writes over a copy, and puts it back with what was there set aside', () => {
		expect(run('backup', '--data', data, '--to', copy).code).toBe(0);
		expect(run('backup', '--data', data, '--to', copy)).toMatchObject({
			code: 2,
			out: expect.stringContaining('exists already')
		});
		const target = join(dir, 'restored');
		expect(run('restore', '--from', copy, '--data', target).out).toMatch(
			/Restored .*: \d+ entries in the logbook, chain unbroken\.$/
		);
		expect(run('restore', '--from', copy, '--data', target)).toMatchObject({
			code: 2,
			out: expect.stringContaining('With --yes it is set aside')
		});
		expect(run('restore', '--from', copy, '--data', target, '--yes').code).toBe(0);
		expect(existsSync(join(target, 'otium.sqlite.before'))).toBe(true);
	});

	it('refuses what is no database, and one whose logbook was changed; what was there stays', () => {
		const target = join(dir, 'kept');
		run('restore', '--from', copy, '--data', target);
		const before = readFileSync(join(target, 'otium.sqlite'));
		const nonsense = join(dir, 'nonsense.sqlite');
		writeFileSync(nonsense, 'this is no database, however long it may be made to look');
		expect(run('restore', '--from', nonsense, '--data', target, '--yes').out).toContain(
			'can’t be restored'.replace('’', "'")
		);
		const changed = new Database(copy);
		changed.exec('DROP TRIGGER logbook_no_update');
		changed.prepare("UPDATE logbook SET body = '{}' WHERE seq = 1").run();
		changed.close();
		expect(run('restore', '--from', copy, '--data', target, '--yes').out).toContain(
			'breaks at entry 1: its contents were changed'
		);
		expect(readFileSync(join(target, 'otium.sqlite')).equals(before)).toBe(true);
	});

	it('a database from a newer version stops the server in words, untouched', () => {
		const target = join(dir, 'newer');
		run('backup', '--data', data, '--to', join(target, 'otium.sqlite'));
		const raw = new Database(join(target, 'otium.sqlite'));
		raw.prepare("INSERT INTO knex_migrations (name, batch, migration_time) VALUES ('999-later', 9, 0)").run();
		raw.pragma('journal_mode = DELETE');
		raw.close();
		const before = readFileSync(join(target, 'otium.sqlite'));
		expect(run('start', '--port', '0', '--data', target)).toMatchObject({
			code: 2,
			out: expect.stringContaining('written by a newer version of Otium (it has 999-later)')
		});
		expect(readFileSync(join(target, 'otium.sqlite')).equals(before)).toBe(true);
	});
});
