import { nanoid } from 'nanoid';
import { foldName } from '$core/access';
import { fail } from '$core/problem';
import type { Actor } from '$core/sitting';
import { transact, type Query } from '../db';
import type { Writing } from '../house';
import { appendToLogbook } from '../logbook';

/**
 * Makes a group by hand. @returns its id
 * @throws ProblemError not_taken when the site has one of that name
 */
export async function addGroup(otium: Writing, by: Actor, siteId: string, name: string): Promise<string> {
	const id = nanoid();
	await transact(otium.db, async (trx) => {
		await mustBeFree(trx, siteId, name);
		await trx('candidate_group').insert({ id, site_id: siteId, name });
		await appendToLogbook(trx, [{ at: otium.now(), by, kind: 'group_made', body: { name } }]);
	});
	return id;
}

/** @throws ProblemError not_taken when the site has another of that name */
export async function renameGroup(otium: Writing, by: Actor, group: Group, name: string): Promise<void> {
	await transact(otium.db, async (trx) => {
		await mustBeFree(trx, group.site_id, name, group.id);
		await trx('candidate_group').where({ id: group.id }).update({ name });
		await appendToLogbook(trx, [{ at: otium.now(), by, kind: 'group_renamed', body: { was: group.name, name } }]);
	});
}
type Group = { id: string; site_id: string; name: string };

async function mustBeFree(trx: Query, siteId: string, name: string, but = ''): Promise<void> {
	const others: string[] = await trx('candidate_group').where({ site_id: siteId }).whereNot({ id: but }).pluck('name');
	const same = others.find((other) => foldName(other) === foldName(name));
	if (same !== undefined)
		fail('not_taken', { message: `There is a group “${same}” at this site already.`, instead: 'Choose another name.' });
}
