import { z } from 'zod';
import { STAFF_ROLES, type HeldRole } from '$core/access';
import { isEmailAddress } from '$core/people';
import { fail } from '$core/problem';
import { confirmed, orRefuse, route, staff } from '$lib/server/http';
import { listStaff, saveStaff } from '$lib/server/identity';
import { coordinatedSites } from '$lib/server/session';
import { faultOfPassword, invite } from '$lib/server/sign-in';

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
		.refine((value) => value === null || isEmailAddress(value), 'This is not an e-mail address.'),
	password: z.string().max(300).nullable(),
	roles: z.array(z.object({ role: z.enum(STAFF_ROLES), siteId: z.string().max(64).nullable() })).max(100)
});

export const POST = route(confirmed(staff('prepare')), Asked, async ({ otium, staff, locals, url, body: change }) => {
	if (change.id === null && change.password === null && change.email === null)
		fail('malformed', {
			status: 422,
			message: 'Somebody new needs a way to sign in.',
			instead: 'Enter an e-mail address, to which a link to choose a password goes; or a first password.'
		});
	const { signIn, name, email } = change;
	const fault =
		change.password && (await faultOfPassword(otium.db, change.id, change.password, [signIn, name, email ?? '']));
	if (fault) fail('not_taken', { message: fault });

	// Nobody gives away more than they have, and whoever holds anything elsewhere is changed by those who coordinate there too.
	const mine = coordinatedSites(staff);
	const old = change.id === null ? null : (await listStaff(otium.db)).find((one) => one.id === change.id);
	if (change.id !== null && !old)
		fail('not_found', { message: 'This person is gone.', instead: 'Load the page again.' });
	const isMine = ({ siteId }: HeldRole) => mine === null || (siteId !== null && mine.includes(siteId));
	if (![...change.roles, ...(old?.roles ?? [])].every(isMine)) fail('not_yours');
	if (mine !== null && (old ?? change).roles.length === 0)
		fail('not_taken', { message: 'A role at your site is needed.', instead: 'Choose at least one.' });
	const by = { role: 'coordinator' as const, id: staff.id };
	const { id, endsLink } = orRefuse(await saveStaff(otium, by, change, locals.signIn));
	// Who was still to choose a password is sent a link for how things are now.
	const needsLink = change.password === null && (change.id === null || endsLink);
	const isInvited = needsLink && (await invite(otium, by, id, url.origin));
	return { id, isInvited };
});
