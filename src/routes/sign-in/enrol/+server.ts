import { z } from 'zod';
import { fail } from '$core/problem';
import { oneself, route } from '$lib/server/http';
import { goOn, secondStepsOf } from '$lib/server/sign-in';
import { whereNext } from '../entered';

/** There is a second step now: the sign-in goes on. */
export const POST = route(
	oneself('enrol'),
	z.object({ to: z.string().max(500) }),
	async ({ otium, self, body, url }) => {
		const has = await secondStepsOf(otium.db, self.staffId);
		if (!has.app && has.passkeys === 0) fail('not_taken', { message: 'A passkey or an app is needed first.' });
		return { next: whereNext(await goOn(otium, self.signIn), body.to, url) };
	}
);
