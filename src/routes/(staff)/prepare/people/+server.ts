import { z } from 'zod';
import { fail } from '$core/problem';
import { coordinatorOf, route, staff } from '$lib/server/http';
import { addGroup, addPerson, PersonFields, renameGroup, trialPerson } from '$lib/server/people';
import { mustBeWithin } from '$lib/server/session';

const name = z.string().trim().min(1, 'A name is needed.').max(80, 'A name of at most 80 letters.');
const siteId = z.string().max(64);
const Asked = z.discriminatedUnion('act', [
	z.object({ act: z.literal('add'), siteId, person: PersonFields }),
	z.object({ act: z.literal('make_group'), siteId, name }),
	z.object({ act: z.literal('trial'), siteId }),
	z.object({ act: z.literal('rename_group'), groupId: z.string().max(64), name })
]);

/** People and groups by hand. */
export const POST = route(staff('prepare'), Asked, async ({ otium, staff, body }) => {
	if (body.act === 'rename_group') {
		const group = await otium.db('candidate_group').where({ id: body.groupId }).first('id', 'site_id', 'name');
		if (!group) fail('not_found');
		await renameGroup(otium, coordinatorOf(staff, group.site_id), group, body.name);
		return { ok: true };
	}
	const by = coordinatorOf(staff, body.siteId);
	if (body.act === 'trial') return trialPerson(otium, by, body.siteId);
	if (body.act === 'make_group') return { id: await addGroup(otium, by, body.siteId, body.name) };
	await mustBeWithin(otium.db, staff, { groups: body.person.groupIds });
	const strange = await otium
		.db('candidate_group')
		.whereIn('id', body.person.groupIds)
		.whereNot({ site_id: body.siteId })
		.first('name');
	if (strange)
		fail('not_taken', {
			message: `${strange.name} is a group of another site.`,
			instead: 'Choose groups of this one.'
		});
	const added = await addPerson(otium, by, body.siteId, body.person);
	if (!added.ok) fail('not_taken', { message: added.message });
	return { id: added.id };
});
