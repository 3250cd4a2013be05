import { json } from '@sveltejs/kit';
import { NOT_AT_THE_DOOR, problem } from '$lib/server/http';
import { drawSitting } from '$lib/server/live';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ locals: { otium, device } }) => {
	if (!device) return problem(401, NOT_AT_THE_DOOR);
	return json({ picture: await drawSitting(otium.db, device.sittingId, otium.now()), epoch: device.epoch });
};
