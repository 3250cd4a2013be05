import { z } from 'zod';
import { inSession, LARGE, route } from '$lib/server/http';
import { lowerHand } from '$lib/server/messages';
import { sittingsHere } from '$lib/server/sitting';

const Asked = z.object({ sittingIds: z.array(z.string().max(64)).min(1).max(2_000) });

/** Somebody went to whoever had their hand up. */
export const POST = route(
	inSession('run_session'),
	{ schema: Asked, mostBytes: LARGE },
	async ({ otium, session, body }) => {
		const here = (await sittingsHere(otium.db, session.id, body.sittingIds)).map(({ id }) => id);
		await lowerHand(otium, here);
		return { lowered: here.length };
	}
);
