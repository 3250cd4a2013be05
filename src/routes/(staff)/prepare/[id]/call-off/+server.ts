import { z } from 'zod';
import { callOff, foreseeCallingOff } from '$lib/server/calling-off';
import { inSession, route } from '$lib/server/http';

const Asked = z.object({
	why: z.string().trim().min(1, 'Say why, in a few words: it is read by whoever was told of it.').max(500),
	/** Whoever was told of the session is written to. */
	tells: z.boolean()
});

/** Who would be expected no more, and who has been told of it. */
export const GET = route(inSession('prepare'), ({ otium, session }) => foreseeCallingOff(otium.db, session));

/** Calls a session off that nobody has come to. */
export const POST = route(inSession('prepare'), Asked, ({ otium, staff, by, session, body }) =>
	callOff(otium, staff, by, session.id, body)
);
