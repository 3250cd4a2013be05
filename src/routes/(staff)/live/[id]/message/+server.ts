import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { allowSession, orTryAgain, readJson } from '$lib/server/http';
import { sendMessage } from '$lib/server/messages';
import { sittingsHere } from '$lib/server/sitting';
import type { RequestHandler } from './$types';

const Asked = z.object({
	commandId: z.string().min(8).max(64),
	sittingIds: z.array(z.string().max(64)).min(1).max(2_000),
	text: z.string().trim().min(1, 'Write what they are to read.').max(500)
});

/** The same words to one, a selection or all of a state. */
export const POST: RequestHandler = async (event) => {
	const allowed = await allowSession(event, event.params.id, 'run_session');
	if (!allowed.ok) return allowed.response;
	const body = await readJson(event.request, Asked);
	if (!body.ok) return body.response;
	const { otium, by, session } = allowed;
	const { commandId, sittingIds, text } = body.data;
	const here = (await sittingsHere(otium.db, session.id, sittingIds)).map(({ id }) => id);
	return orTryAgain(async () => {
		await sendMessage(otium, by, session.id, commandId, here, text);
		return json({ sent: here.length });
	});
};
