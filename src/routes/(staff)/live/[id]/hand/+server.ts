import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { allowSession, orTryAgain, readJson } from '$lib/server/http';
import { lowerHand } from '$lib/server/messages';
import { sittingsHere } from '$lib/server/sitting';
import type { RequestHandler } from './$types';

const Asked = z.object({ sittingIds: z.array(z.string().max(64)).min(1).max(2_000) });

/** Somebody went to whoever had their hand up. */
export const POST: RequestHandler = async (event) => {
	const allowed = await allowSession(event, event.params.id, 'run_session');
	if (!allowed.ok) return allowed.response;
	const body = await readJson(event.request, Asked);
	if (!body.ok) return body.response;
	const { otium, session } = allowed;
	const here = (await sittingsHere(otium.db, session.id, body.data.sittingIds)).map(({ id }) => id);
	return orTryAgain(async () => {
		await lowerHand(otium, here);
		return json({ lowered: here.length });
	});
};
