import { z } from 'zod';
import { isEmailAddress } from '$core/mail';
import { saveHelp } from '$lib/server/contacts';
import { coordinatorOfAll, route, staff } from '$lib/server/http';

const text = (most: number) => z.string().trim().max(most);
const Contact = z.object({
	problem: text(80).min(1, 'Say for which problem.'),
	name: text(80).min(1, 'A name is needed.'),
	telephone: text(40).regex(/^[+\d][\d\s()/.-]{2,}$/, 'Give a telephone number, like +44 20 7946 0018.'),
	email: text(200).refine((value) => value === '' || isEmailAddress(value), 'This is not an e-mail address.'),
	hours: text(80),
	forCandidates: z.boolean()
});
const list = z.array(Contact).max(40, 'At most 40 contacts.');
const Asked = z.object({ administrationId: z.string().max(64), was: z.array(z.unknown()).max(40), contacts: list });

/** Whom to turn to in an administration. */
export const PUT = route(staff('change_shared'), Asked, async ({ otium, staff, body }) => {
	const by = coordinatorOfAll(staff);
	await saveHelp(otium, by, body.administrationId, { was: body.was as never, contacts: body.contacts });
	return { ok: true };
});
