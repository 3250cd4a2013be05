import Database from 'better-sqlite3';
import knex from 'knex';
import { expect, it } from 'vitest';
import { startFailure } from './start-failure.mjs';

it('a statement that fails while the server starts tells its code and not whose row it was', async () => {
	const db = knex({ client: 'better-sqlite3', connection: { filename: ':memory:' }, useNullAsDefault: true });
	await db.schema.createTable('person', (t) => void t.string('name').notNullable().primary());
	await db('person').insert({ name: 'Tobias Rook' });
	const failed = await db('person')
		.insert({ name: 'Tobias Rook' })
		.then(
			() => null,
			(error: unknown) => error
		);
	await db.destroy();
	// What Knex makes of it names the row; what is told does not.
	expect(String(failed)).toContain('Tobias Rook');
	expect(startFailure(failed)).not.toContain('Rook');
	expect(startFailure(failed)).toContain('SQLITE_CONSTRAINT');
	expect(startFailure(new Database.SqliteError('disk I/O error', 'SQLITE_IOERR'))).toContain('disk takes writes');
});

it('what Otium itself says is told as it is, and a fault of the program with its stack', () => {
	expect(startFailure(new Error('Port 4600 is in use.'))).toBe('Error: Port 4600 is in use.');
	expect(startFailure(new TypeError('tide is not defined'))).toMatch(/TypeError: tide is not defined\n\s+at /);
});
