import { z } from 'zod';
import { inSession, LARGE, route } from '$lib/server/http';
import { sendMessage } from '$lib/server/messages';
import { sittingsHere } from '$lib/server/sitting';

const Asked = z.object({
	commandId: z.string().min(8).max(64),
	sittingIds: z.array(z.string().max(64)).min(1).max(2_000),
	text: z.string().trim().min(1, 'Write what they are to read.').max(500)
});

/** The same words to one, a selection or all of a state. */
export const POST = route(
	inSession('run_session'),
	{ schema: Asked, mostBytes: LARGE },
	async ({ otium, by, session, body: { commandId, sittingIds, text } }) => {
		const here = (await sittingsHere(otium.db, session.id, sittingIds)).map(({ id }) => id);
		await sendMessage(otium, by, session.id, commandId, here, text);
		return { sent: here.length };
	}
);
