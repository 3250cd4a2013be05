import { json } from '@sveltejs/kit';
import { orTryAgain, problem } from '$lib/server/http';
import { makeChallenge } from '$lib/server/identity';
import type { RequestHandler } from './$types';

/** A nonce for a sealed client to answer. Anybody may ask, but not endlessly. */
export const POST: RequestHandler = async ({ locals: { otium, address } }) => {
	const wait = await otium.limits.challenged(address);
	if (wait > 0)
		return problem(429, {
			code: 'too_many_tries',
			message: 'Too many tries from here.',
			instead: 'Wait a little.',
			waitSeconds: wait
		});
	return orTryAgain(async () => json(await makeChallenge(otium)));
};
