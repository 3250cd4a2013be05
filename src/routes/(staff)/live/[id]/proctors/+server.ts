import { z } from 'zod';
import { fail } from '$core/problem';
import { inSession, route } from '$lib/server/http';
import { handOver, proctorsFor } from '$lib/server/session';

/** Who may take this room over. */
export const GET = route(inSession('run_session'), async ({ otium, session }) => ({
	proctors: await proctorsFor(otium.db, session)
}));

const Asked = z.object({
	staffId: z.string().max(64),
	/** What the next one should know. */
	note: z.string().trim().max(500).default(''),
	/** Whoever hands over stays as well. */
	stays: z.boolean().default(false)
});

/** Hands the room over to somebody else. */
export const POST = route(inSession('run_session'), Asked, async ({ otium, by, session, body }) => {
	if (!(await handOver(otium, by, session, body))) fail('not_found');
	return { ok: true };
});
