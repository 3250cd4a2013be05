import { z } from 'zod';
import { fail } from '$core/problem';
import { countHeldBack } from '$lib/server/answers';
import { inSession, route } from '$lib/server/http';
import { isOnRoster } from '$lib/server/session';

const Asked = z.object({ reason: z.string().trim().min(1, 'Say why, in a few words.').max(300) });

/** Lets the answers of one sitting count that were held back. */
export const POST = route(inSession('reopen'), Asked, async ({ otium, by, session, params, body }) => {
	if (!(await isOnRoster(otium.db, session.id, params.sitting))) fail('not_found');
	const counted = await countHeldBack(otium, by, session.id, params.sitting, body.reason);
	if (counted === 0) fail('none_held_back');
	return { counted };
});
