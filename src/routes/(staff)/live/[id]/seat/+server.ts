import { z } from 'zod';
import { inSession, orRefuse, route } from '$lib/server/http';
import { reseat } from '$lib/server/session';

const Asked = z.object({ sittingId: z.string().max(64), seat: z.string().regex(/^[A-Z]{1,2}\d{1,2}$/) });

/** Somebody sits elsewhere; whoever sat there changes places with them. */
export const POST = route(inSession('run_session'), Asked, async ({ otium, by, session, body }) =>
	orRefuse(await reseat(otium, by, session, body.sittingId, body.seat))
);
