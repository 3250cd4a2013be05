import { z } from 'zod';
import { inSession, orRefuse, route } from '$lib/server/http';
import { callTime, endSession, openEarly, renewDoorCode, showDoorCodeTo, startRoom } from '$lib/server/session';

const Asked = z.object({
	act: z.enum(['start_room', 'call_time', 'open_early', 'renew_code', 'show_code', 'hide_code', 'end']),
	/** Of an end: what those at work have is handed in, instead of being carried over. */
	collects: z.boolean().default(false)
});

/** Acts on the session itself. */
export const POST = route(inSession('run_session'), Asked, async ({ otium, by, session, body }) => {
	const acts = {
		start_room: () => startRoom(otium, session.id, by),
		call_time: () => callTime(otium, session.id, by),
		open_early: () => openEarly(otium, session.id, by),
		renew_code: () => renewDoorCode(otium, session.id, by),
		show_code: () => showDoorCodeTo(otium, session.id, by, false),
		hide_code: () => showDoorCodeTo(otium, session.id, by, true),
		end: () => endSession(otium, session.id, by, body.collects)
	};
	orRefuse(await acts[body.act](), 'already');
	return { ok: true };
});
