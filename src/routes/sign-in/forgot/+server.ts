import { addressOf } from '$lib/server/house-card';
import { z } from 'zod';
import { fail } from '$core/problem';
import { anyone, route } from '$lib/server/http';
import { askForLink } from '$lib/server/sign-in';

const Asked = z.object({ name: z.string().trim().min(1).max(200) });

/** Asks for a mail with a link to a new password. The answer is the same whether or not there is somebody of that name. */
export const POST = route(anyone, Asked, async ({ otium, body, locals, url }) => {
	const waits = await otium.limits.asked('forgot', locals.address);
	if (waits > 0) fail('slow_down', { waitSeconds: waits });
	const waitSeconds = await askForLink(otium, body.name, await addressOf(otium.db, url), locals.address);
	if (waitSeconds > 0) fail('slow_down', { waitSeconds });
	return { ok: true };
});
