import { refusal } from '$core/sitting';
import { device, eventStream, refuse, route } from '$lib/server/http';
import { heldBy } from '$lib/server/lines';

export const GET = route(device, async ({ otium, device: { sittingId, epoch }, binding, isBound, locals }) => {
	// Freed, and nobody is there yet: it is told so. Once another device is bound, it hears nothing more.
	if (!isBound && binding.device_epoch !== null) refuse(refusal('second_device'));
	const holders = [heldBy.device(sittingId, epoch), heldBy.signIn(locals.signIn!)];
	if (locals.client) holders.push(heldBy.client(locals.client.deviceId));
	const stream = await otium.lines.hold(holders, (hold) => {
		if (isBound) otium.presence.streamOpened(sittingId);
		return otium.hub.watchSitting(sittingId, hold, () => {
			if (isBound) otium.presence.streamClosed(sittingId);
		});
	});
	return eventStream(stream!);
});
