import { eventStream, NOT_AT_THE_DOOR, problem } from '$lib/server/http';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ locals: { otium, device } }) => {
	if (!device) return problem(401, NOT_AT_THE_DOOR);
	const row = await otium.db('sitting').where({ id: device.sittingId }).first('device_epoch');
	const isBound = row?.device_epoch === device.epoch;
	if (isBound) otium.presence.streamOpened(device.sittingId);
	const stream = await otium.hub.watchSitting(device.sittingId, () => {
		if (isBound) otium.presence.streamClosed(device.sittingId);
	});
	return eventStream(stream);
};
