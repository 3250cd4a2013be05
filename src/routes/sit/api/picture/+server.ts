import { refusal } from '$core/sitting';
import { device, refuse, route } from '$lib/server/http';
import { drawSitting } from '$lib/server/live';

export const GET = route(device, async ({ otium, device }) => {
	const picture = await drawSitting(otium.db, device.sittingId, otium.now());
	if (picture.epoch !== null && picture.epoch !== device.epoch) refuse(refusal('second_device'));
	return { picture, epoch: device.epoch };
});
