import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { mayAnywhere, STAFF_ROLES } from '$core/access';
import { NOT_YOURS, orTryAgain, problem, readJson, SIGNED_OUT } from '$lib/server/http';
import { listStaff, saveStaff } from '$lib/server/identity';
import { coordinatedSites } from '$lib/server/session';
import type { RequestHandler } from './$types';

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
		.refine((value) => value === null || /^[^\s@]+@[^\s@]+\.[^\s@]+$/.test(value), 'This is no e-mail address.'),
	// NIST SP 800-63B: length is what counts; nothing is prescribed of what it is made of.
	password: z.string().min(12, 'A password of at least 12 letters.').max(200).nullable(),
	roles: z.array(z.object({ role: z.enum(STAFF_ROLES), siteId: z.string().max(64).nullable() })).max(100)
});

export const POST: RequestHandler = async ({ request, locals: { otium, staff } }) => {
	if (!staff) return problem(401, SIGNED_OUT);
	if (!mayAnywhere(staff, 'prepare')) return problem(403, NOT_YOURS);
	const body = await readJson(request, Asked);
	if (!body.ok) return body.response;
	const change = body.data;
	if (change.id === null && change.password === null)
		return problem(422, {
			code: 'malformed',
			message: 'Somebody new needs a password.',
			instead: 'Give one of at least 12 letters.'
		});

	// Nobody gives away more than they have: roles at other sites stay as they are.
	const mine = coordinatedSites(staff);
	const old = change.id === null ? null : (await listStaff(otium.db)).find((one) => one.id === change.id);
	if (change.id !== null && !old)
		return problem(404, { code: 'not_found', message: 'This person is gone.', instead: 'Load the page again.' });
	const isMine = (siteId: string | null) => mine === null || (siteId !== null && mine.includes(siteId));
	const reach = [...change.roles, ...(old?.roles ?? [])];
	const differs = (held: (typeof reach)[number]) =>
		change.roles.some((one) => one.role === held.role && one.siteId === held.siteId) !==
		(old?.roles ?? []).some((one) => one.role === held.role && one.siteId === held.siteId);
	if (!reach.filter(differs).every((held) => isMine(held.siteId))) return problem(403, NOT_YOURS);
	if (
		old &&
		!old.roles.every((held) => isMine(held.siteId)) &&
		(change.password !== null || change.signIn.toLowerCase() !== old.signIn)
	)
		return problem(403, NOT_YOURS);
	return orTryAgain(async () => {
		const result = await saveStaff(otium, { role: 'coordinator', id: staff.id }, change);
		return result.ok ? json({ id: result.id }) : problem(409, { code: 'refused', message: result.message });
	});
};
