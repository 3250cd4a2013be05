import { z } from 'zod';
import { STAFF_ROLES } from '$core/access';
import { isEmailAddress } from '$core/people';
import { fail } from '$core/problem';
import { orRefuse, route, staff } from '$lib/server/http';
import { listStaff, saveStaff } from '$lib/server/identity';
import { coordinatedSites } from '$lib/server/session';

const Asked = z.object({
	id: z.string().max(64).nullable(),
	name: z.string().trim().min(1, 'A name is needed.').max(120),
	signIn: z
		.string()
		.trim()
		.regex(/^[a-z0-9][a-z0-9._-]{1,39}$/i, 'A sign-in of 2 to 40 letters, digits, dots or dashes.'),
	email: z
		.string()
		.trim()
		.max(200)
		.transform((value) => value || null)
		.refine((value) => value === null || isEmailAddress(value), 'This is no e-mail address.'),
	// NIST SP 800-63B: length is what counts; nothing is prescribed of what it is made of.
	password: z.string().min(12, 'A password of at least 12 letters.').max(200).nullable(),
	roles: z.array(z.object({ role: z.enum(STAFF_ROLES), siteId: z.string().max(64).nullable() })).max(100)
});

export const POST = route(staff('prepare'), Asked, async ({ otium, staff, body: change }) => {
	if (change.id === null && change.password === null)
		fail('malformed', {
			status: 422,
			message: 'Somebody new needs a password.',
			instead: 'Give one of at least 12 letters.'
		});

	// Nobody gives away more than they have: roles at other sites stay as they are.
	const mine = coordinatedSites(staff);
	const old = change.id === null ? null : (await listStaff(otium.db)).find((one) => one.id === change.id);
	if (change.id !== null && !old)
		fail('not_found', { message: 'This person is gone.', instead: 'Load the page again.' });
	const isMine = (siteId: string | null) => mine === null || (siteId !== null && mine.includes(siteId));
	const reach = [...change.roles, ...(old?.roles ?? [])];
	const differs = (held: (typeof reach)[number]) =>
		change.roles.some((one) => one.role === held.role && one.siteId === held.siteId) !==
		(old?.roles ?? []).some((one) => one.role === held.role && one.siteId === held.siteId);
	if (!reach.filter(differs).every((held) => isMine(held.siteId))) fail('not_yours');
	if (
		old &&
		!old.roles.every((held) => isMine(held.siteId)) &&
		(change.password !== null || change.signIn.toLowerCase() !== old.signIn)
	)
		fail('not_yours');
	const { id } = orRefuse(await saveStaff(otium, { role: 'coordinator', id: staff.id }, change));
	return { id };
});
