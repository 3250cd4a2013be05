import { nanoid } from 'nanoid';
import { foldNumber } from '$core/access';
import type { Actor } from '$core/sitting';
import { transact } from '../db';
import type { Writing } from '../house';
import { appendToLogbook } from '../logbook';

const GROUP = 'Trial people';

/**
 * The made-up person with whom the staff of a site try a session as a candidate would; made when first asked for. Only
 * rehearsals take them, so that nothing they do counts.
 */
export async function trialPerson(
	otium: Writing,
	by: Actor,
	siteId: string
): Promise<{ id: string; name: string; number: string }> {
	return transact(otium.db, async (trx) => {
		const there = await trx('candidate')
			.join('candidate_group', 'candidate_group.id', 'candidate.group_id')
			.where({ site_id: siteId, trial: 1 })
			.first('candidate.id', 'number');
		if (there) return { ...there, name: 'Trial Person' };
		const [{ n }] = (await trx('candidate').where({ trial: 1 }).count('* as n')) as { n: number }[];
		const group = await trx('candidate_group').where({ site_id: siteId, name: GROUP }).first('id');
		const groupId: string = group?.id ?? nanoid();
		if (!group) await trx('candidate_group').insert({ id: groupId, site_id: siteId, name: GROUP });
		const id = nanoid();
		const number = `TRIAL-${n + 1}`;
		const names = { given: 'Trial', family: 'Person' };
		await trx('candidate').insert({
			id,
			number,
			number_folded: foldNumber(number),
			...names,
			group_id: groupId,
			trial: true
		});
		await trx('group_member').insert({ candidate_id: id, group_id: groupId }).onConflict().ignore();
		await appendToLogbook(trx, [{ at: otium.now(), by, kind: 'person_added', body: { number, name: 'Trial Person' } }]);
		return { id, name: 'Trial Person', number };
	});
}
