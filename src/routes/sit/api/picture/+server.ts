import { hasEnded, refusal } from '$core/sitting';
import { listeningDevice, refuse, route } from '$lib/server/http';
import { drawSitting } from '$lib/server/live';

/** What a device shows. One that was freed hears of its sitting until it has ended, and nothing of what was handed in. */
export const GET = route(listeningDevice, async ({ otium, device, isBound }) => {
	const picture = await drawSitting(otium.db, device.sittingId, otium.now());
	if (!isBound && hasEnded(picture.state)) refuse(refusal('second_device'));
	return { picture, epoch: device.epoch };
});
