import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { countHeldBack } from '$lib/server/answers';
import { allowSession, NO_SUCH_THING, orTryAgain, problem, readJson } from '$lib/server/http';
import { isOnRoster } from '$lib/server/session';
import type { RequestHandler } from './$types';

const Asked = z.object({ reason: z.string().trim().min(1, 'Say why, in a few words.').max(300) });

/** Lets the answers of one sitting count that were held back. */
export const POST: RequestHandler = async (event) => {
	const allowed = await allowSession(event, event.params.id, 'reopen');
	if (!allowed.ok) return allowed.response;
	const body = await readJson(event.request, Asked);
	if (!body.ok) return body.response;
	const { otium, by, session } = allowed;
	if (!(await isOnRoster(otium.db, session.id, event.params.sitting))) return problem(404, NO_SUCH_THING);
	return orTryAgain(async () => {
		const counted = await countHeldBack(otium, by, session.id, event.params.sitting, body.data.reason);
		if (counted > 0) return json({ counted });
		return problem(409, {
			code: 'none_held_back',
			message: 'No answer of theirs is held back now.',
			instead: 'Somebody else has counted them.'
		});
	});
};
