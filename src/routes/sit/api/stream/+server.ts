import { device, eventStream, route } from '$lib/server/http';

export const GET = route(device, async ({ otium, device }) => {
	const row = await otium.db('sitting').where({ id: device.sittingId }).first('device_epoch');
	const isBound = row?.device_epoch === device.epoch;
	if (isBound) otium.presence.streamOpened(device.sittingId);
	const stream = await otium.hub.watchSitting(device.sittingId, () => {
		if (isBound) otium.presence.streamClosed(device.sittingId);
	});
	return eventStream(stream);
});
