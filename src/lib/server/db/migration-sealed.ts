import type { Knex } from 'knex';
import { markOf, sealSecret } from './house-key';
import { makeAppendOnly } from './append-only';
import type { Migration } from './migrations';

type Last = { seq: number; hash: string } | undefined;

/**
 * Secrets lie sealed under the house's key, codes are found by a mark, and what is appended from now on is chained with a
 * key that is not in the file: the logbook's entries and, in groups, the answers.
 */
export const sealed: Migration = {
	name: '008-sealed',
	async up(db: Knex) {
		await db.schema.alterTable('session', (t) => {
			t.string('door_code_mark').index();
		});
		await db.schema.alterTable('slip', (t) => {
			t.string('code_mark');
		});
		await db.schema.alterTable('answer', (t) => {
			// The group that it was committed with; null: before groups were chained.
			t.integer('group_seq').index();
		});
		await db.schema.createTable('answer_group', (t) => {
			t.integer('seq').primary();
			t.bigInteger('at').notNullable();
			t.integer('answers').notNullable();
			t.string('digest').notNullable();
			t.string('before').notNullable();
			t.string('hash').notNullable();
		});
		await makeAppendOnly(db, 'answer_group');
		await sealWhatIsThere(db);
		const last: Last = await db('logbook').orderBy('seq', 'desc').first('seq', 'hash');
		// Up to here entries follow from one another without a key, and so many answers are in no chain. Sealed, so that nobody can say it of later ones.
		const [{ answers }] = await db('answer').count('* as answers');
		const before = JSON.stringify({ seq: last?.seq ?? 0, hash: last?.hash ?? null, answers });
		await db('meta').insert([
			{ key: 'unkeyed', value: sealSecret(db, before) },
			{ key: 'key_check', value: sealSecret(db, 'ours') }
		]);
	}
};

async function sealWhatIsThere(db: Knex) {
	const server = await db('meta').where({ key: 'server_key' }).first('value');
	if (server)
		await db('meta')
			.where({ key: 'server_key' })
			.update({ value: sealSecret(db, server.value) });
	for (const { id, secret } of await db('site_key').select('id', 'secret'))
		await db('site_key')
			.where({ id })
			.update({ secret: sealSecret(db, secret) });
	for (const { id, door_code, turning_key } of await db('session').select('id', 'door_code', 'turning_key'))
		await db('session')
			.where({ id })
			.update({
				door_code: door_code && sealSecret(db, door_code),
				door_code_mark: door_code && markOf(db, door_code),
				turning_key: turning_key && sealSecret(db, turning_key)
			});
	for (const { sitting_id, code } of await db('slip').select('sitting_id', 'code'))
		await db('slip')
			.where({ sitting_id })
			.update({ code: sealSecret(db, code), code_mark: markOf(db, code) });
	await db.raw('CREATE UNIQUE INDEX slip_code_mark ON slip (code_mark)');
}
