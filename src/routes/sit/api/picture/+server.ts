import { device, route } from '$lib/server/http';
import { drawSitting } from '$lib/server/live';

export const GET = route(device, async ({ otium, device }) => ({
	picture: await drawSitting(otium.db, device.sittingId, otium.now()),
	epoch: device.epoch
}));
