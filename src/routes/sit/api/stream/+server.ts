import { eventStream, listeningDevice, route } from '$lib/server/http';
import { heldBy } from '$lib/server/lines';

export const GET = route(listeningDevice, async ({ otium, device: { sittingId, epoch }, isBound, locals }) => {
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
