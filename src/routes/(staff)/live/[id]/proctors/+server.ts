import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { allowSession, NO_SUCH_THING, orTryAgain, problem, readJson } from '$lib/server/http';
import { handOver, proctorsFor } from '$lib/server/session';
import type { RequestHandler } from './$types';

/** Who may take this room over. */
export const GET: RequestHandler = async (event) => {
	const allowed = await allowSession(event, event.params.id, 'run_session');
	if (!allowed.ok) return allowed.response;
	return json({ proctors: await proctorsFor(allowed.otium.db, allowed.session) });
};

const Asked = z.object({
	staffId: z.string().max(64),
	/** What the next one should know. */
	note: z.string().trim().max(500).default(''),
	/** Whoever hands over stays as well. */
	stays: z.boolean().default(false)
});

/** Hands the room over to somebody else. */
export const POST: RequestHandler = async (event) => {
	const allowed = await allowSession(event, event.params.id, 'run_session');
	if (!allowed.ok) return allowed.response;
	const body = await readJson(event.request, Asked);
	if (!body.ok) return body.response;
	const { otium, by, session } = allowed;
	return orTryAgain(async () => {
		const done = await handOver(otium, by, session, body.data);
		return done ? json({ ok: true }) : problem(404, NO_SUCH_THING);
	});
};
