import { z } from 'zod';
import { STAFF_ROLES, type HeldRole } from '$core/access';
import { isEmailAddress } from '$core/mail';
import { fail } from '$core/problem';
import { confirmed, LARGE, orRefuse, route, staff } from '$lib/server/http';
import { addressOf } from '$lib/server/house-card';
import { mailLeaves } from '$lib/server/mail';
import { inviteAll } from '$lib/server/setting-up';
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
	const { signIn, name, email } = change;
	const fault =
		change.password && (await faultOfPassword(otium.db, change.id, change.password, [signIn, name, email ?? '']));
	if (fault) fail('not_taken', { message: fault });

	const mine = coordinatedSites(staff);
	const old = change.id === null ? null : (await listStaff(otium.db)).find((one) => one.id === change.id);
	if (change.id !== null && !old)
		fail('not_found', { message: 'This person is gone.', instead: 'Load the page again.' });
	mustBeMine(mine, [...change.roles, ...(old?.roles ?? [])]);
	if (change.roles.length === 0 && (change.id === null || (mine !== null && old!.roles.length === 0)))
		fail('not_taken', {
			message: `${name} would have no role, and could see nothing.`,
			instead: mine === null ? 'Choose at least one.' : 'Choose at least one at your site.'
		});
	const by = { role: 'coordinator' as const, id: staff.id };
	const { id, endsLink } = orRefuse(await saveStaff(otium, by, change, locals.signIn));
	// Who was still to choose a password is sent a link for how things are now.
	const needsLink = change.password === null && (change.id === null || endsLink);
	const invited = needsLink ? await invite(otium, by, id, await addressOf(otium.db, url), mailLeaves()) : null;
	return { id, isInvited: invited !== null && invited.link === null, link: invited?.link ?? null };
});

const SeveralAsked = z.object({
	people: z
		.array(Asked.pick({ name: true, signIn: true, email: true }))
		.min(1, 'Nobody is in the list.')
		.max(200, 'At most 200 at once.'),
	roles: Asked.shape.roles.min(1, 'Choose what they do.')
});

/** Accounts for a list of people, who all may do the same. */
export const PUT = route(
	confirmed(staff('prepare')),
	{ schema: SeveralAsked, mostBytes: LARGE },
	async ({ otium, staff, url, body: { people, roles } }) => {
		mustBeMine(coordinatedSites(staff), roles);
		const by = { role: 'coordinator' as const, id: staff.id };
		const asked = people.map((one) => ({ ...one, roles }));
		return { invited: await inviteAll(otium, by, asked, await addressOf(otium.db, url)) };
	}
);

/** Nobody gives away more than they have, and whoever holds anything elsewhere is changed by those who coordinate there too. */
function mustBeMine(mine: string[] | null, roles: HeldRole[]): void {
	const isMine = ({ siteId }: HeldRole) => mine === null || (siteId !== null && mine.includes(siteId));
	if (!roles.every(isMine)) fail('not_yours');
}
