import { z } from 'zod';
import { fail } from '$core/problem';
import { REQUEST_WHATS } from '$core/request';
import { MOST_SHOWN_BYTES, Shown } from '$lib/server/grants';
import { inSession, route } from '$lib/server/http';
import { askFor } from '$lib/server/requests';
import { sittingsHere } from '$lib/server/sitting';

const Asked = z.object({
	sittingId: z.string().max(64),
	what: z.enum(REQUEST_WHATS),
	why: z.string().trim().min(1, 'Say why, in a few words.').max(2_000),
	shown: Shown.nullable().default(null)
});

/** A proctor asks for somebody in the room. */
export const POST = route(
	inSession('run_session'),
	{ schema: Asked, mostBytes: MOST_SHOWN_BYTES },
	async ({ otium, staff, by, session, body }) => {
		const [sitting] = await sittingsHere(otium.db, session.id, [body.sittingId]);
		if (!sitting) fail('not_found');
		const asker = await otium.db('staff').where({ id: staff.id }).first('email');
		const id = await askFor(otium, by, {
			candidateId: sitting.candidate_id,
			sessionId: session.id,
			what: body.what,
			why: body.why,
			as: 'proctor',
			by: staff.name,
			email: asker?.email ?? null,
			shown: body.shown
		});
		return { id };
	}
);
