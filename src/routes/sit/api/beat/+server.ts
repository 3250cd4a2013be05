import { z } from 'zod';
import { SITTING_STATES } from '$core/sitting';
import { listeningDevice, route } from '$lib/server/http';
import { startClock } from '$lib/server/sitting';

const Beat = z.object({
	at: z.number().int().min(0).max(2_000).nullable().default(null),
	shows: z.enum(SITTING_STATES).nullable().default(null),
	battery: z.number().min(0).max(1).nullable().default(null)
});

/**
 * The bound device says that it is there and which question it shows, and learns the time and when to say it again,
 * `{ now, next }`. One that was freed learns that, once another is bound.
 */
export const POST = route(listeningDevice, Beat, async ({ otium, device, binding, isBound, body }) => {
	if (isBound) {
		otium.presence.seen(device.sittingId);
		if (binding.clock_waits && body.at !== null) await startClock(otium, device.sittingId);
		if (otium.presence.tells(device.sittingId, body))
			otium.hub.answered([{ sittingId: device.sittingId, sessionId: binding.session_id }]);
	}
	return { now: otium.now(), next: otium.presence.beatMs };
});
