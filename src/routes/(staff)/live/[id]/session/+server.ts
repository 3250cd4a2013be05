import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { allowSession, orTryAgain, problem, readJson } from '$lib/server/http';
import { endSession, openEarly, renewDoorCode, showDoorCodeTo, startRoom } from '$lib/server/session';
import type { RequestHandler } from './$types';

const Asked = z.object({ act: z.enum(['start_room', 'open_early', 'renew_code', 'show_code', 'hide_code', 'end']) });

/** Acts on the session itself. */
export const POST: RequestHandler = async (event) => {
	const allowed = await allowSession(event, event.params.id, 'run_session');
	if (!allowed.ok) return allowed.response;
	const body = await readJson(event.request, Asked);
	if (!body.ok) return body.response;
	const { otium, by, session } = allowed;
	const acts = {
		start_room: () => startRoom(otium, session.id, by),
		open_early: () => openEarly(otium, session.id, by),
		renew_code: () => renewDoorCode(otium, session.id, by),
		show_code: () => showDoorCodeTo(otium, session.id, by, false),
		hide_code: () => showDoorCodeTo(otium, session.id, by, true),
		end: () => endSession(otium, session.id, by)
	};
	return orTryAgain(async () => {
		const result = await acts[body.data.act]();
		return result.ok ? json({ ok: true }) : problem(409, { code: 'already', message: result.message });
	});
};
