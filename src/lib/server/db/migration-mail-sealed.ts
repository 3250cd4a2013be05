import type { Knex } from 'knex';
import { sealSecret } from './house-key';
import type { Migration } from './migrations';

/** What a mail says may hold a slip or a link that lets somebody in. */
export const mailSealed: Migration = {
	name: '011-mail-sealed',
	async up(db: Knex) {
		for (const { id, body } of await db('mail').select('id', 'body'))
			await db('mail')
				.where({ id })
				.update({ body: sealSecret(db, body) });
	}
};
