import { refusal } from '$core/sitting';
import { anyone, refuse, route } from '$lib/server/http';
import { makeChallenge } from '$lib/server/identity';

/** A nonce for a sealed client to answer. Anybody may ask, but not endlessly. */
export const POST = route(anyone, async ({ otium, locals }) => {
	const wait = await otium.limits.asked('challenge', locals.address);
	if (wait > 0) refuse(refusal('too_many_tries'), wait);
	return makeChallenge(otium);
});
