import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { messagesSeen } from '$lib/server/messages';
import { allowDevice, orNotSavedYet, readJson } from '$lib/server/http';
import type { RequestHandler } from './$types';

const Asked = z.object({ seen: z.array(z.string().max(140)).min(1).max(100) });

/** The candidate has read messages; the proctor sees that. */
export const POST: RequestHandler = async (event) => {
	const allowed = await allowDevice(event);
	if (!allowed.ok) return allowed.response;
	const { otium, device } = allowed;
	const { request } = event;
	const body = await readJson(request, Asked);
	if (!body.ok) return body.response;
	return orNotSavedYet(async () => {
		await messagesSeen(otium, device.sittingId, body.data.seen);
		return json({ ok: true });
	});
};
