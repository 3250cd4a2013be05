import { json } from '@sveltejs/kit';
import { NOT_AT_THE_DOOR, problem } from '$lib/server/http';
import type { RequestHandler } from './$types';

/** The bound device says that it is there, and learns the time. */
export const POST: RequestHandler = async ({ locals: { otium, device } }) => {
	if (!device) return problem(401, NOT_AT_THE_DOOR);
	const row = await otium.db('sitting').where({ id: device.sittingId }).first('device_epoch');
	if (row?.device_epoch === device.epoch) otium.presence.seen(device.sittingId);
	return json({ now: otium.now() });
};
