import { z } from 'zod';
import { STAFF_ROLES, type HeldRole } from '$core/access';
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

export const POST = route(staff('prepare'), Asked, async ({ otium, staff, locals, body: change }) => {
	if (change.id === null && change.password === null)
		fail('malformed', {
			status: 422,
			message: 'Somebody new needs a password.',
			instead: 'Give one of at least 12 letters.'
		});

	// Nobody gives away more than they have, and whoever holds anything elsewhere is changed by those who coordinate there too.
	const mine = coordinatedSites(staff);
	const old = change.id === null ? null : (await listStaff(otium.db)).find((one) => one.id === change.id);
	if (change.id !== null && !old)
		fail('not_found', { message: 'This person is gone.', instead: 'Load the page again.' });
	const isMine = ({ siteId }: HeldRole) => mine === null || (siteId !== null && mine.includes(siteId));
	if (![...change.roles, ...(old?.roles ?? [])].every(isMine)) fail('not_yours');
	if (mine !== null && (old ?? change).roles.length === 0)
		fail('not_taken', { message: 'A role at your site is needed.', instead: 'Choose at least one.' });
	const { id } = orRefuse(await saveStaff(otium, { role: 'coordinator', id: staff.id }, change, locals.signIn));
	return { id };
});
