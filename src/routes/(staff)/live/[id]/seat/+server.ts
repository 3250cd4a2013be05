import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { allowSession, orTryAgain, problem, readJson } from '$lib/server/http';
import { reseat } from '$lib/server/session';
import type { RequestHandler } from './$types';

const Asked = z.object({ sittingId: z.string().max(64), seat: z.string().regex(/^[A-Z]{1,2}\d{1,2}$/) });

/** Somebody sits elsewhere; whoever sat there changes places with them. */
export const POST: RequestHandler = async (event) => {
	const allowed = await allowSession(event, event.params.id, 'run_session');
	if (!allowed.ok) return allowed.response;
	const body = await readJson(event.request, Asked);
	if (!body.ok) return body.response;
	return orTryAgain(async () => {
		const done = await reseat(allowed.otium, allowed.by, allowed.session, body.data.sittingId, body.data.seat);
		return done.ok ? json(done) : problem(409, done.problem);
	});
};
