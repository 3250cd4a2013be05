import { z } from 'zod';
import { fail } from '$core/problem';
import { refusal } from '$core/sitting';
import { boundDevice, refuse, route } from '$lib/server/http';
import { isCounted, notePlayed, playedIn } from '$lib/server/media';
import { loadSitting, questionsSent } from '$lib/server/sitting';

const Asked = z.object({
	of: z.string().max(40),
	place: z.number().int().min(0).max(50),
	times: z.number().int().min(1).max(99)
});

/** How often a file that may be played only so often has been played by now, as the device counts it. */
export const POST = route(boundDevice, Asked, async ({ otium, device, body }) => {
	const one = await loadSitting(otium.db, device.sittingId, otium.now());
	if (one?.sitting.state !== 'working') refuse(refusal('not_from_this_state'));
	const { questions } = await questionsSent(otium.db, one);
	if (!isCounted(questions, body)) fail('unknown_word');
	await notePlayed(otium.db, device.sittingId, body);
	return { played: await playedIn(otium.db, device.sittingId) };
});
