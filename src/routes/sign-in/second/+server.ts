import { z } from 'zod';
import { fail } from '$core/problem';
import { oneself, route } from '$lib/server/http';
import { goOn, passByCode } from '$lib/server/sign-in';
import { whereNext } from '../entered';

const Asked = z.object({ code: z.string().trim().min(1).max(40), to: z.string().max(500) });

/** A code from the app, or a recovery code: the second step of a sign-in. Answers with where it goes on. */
export const POST = route(oneself('second'), Asked, async ({ otium, self, body, locals, url }) => {
	const passed = await passByCode(otium, self.staffId, body.code, locals.address);
	if (!passed.ok) fail('wrong_code', passed.waitSeconds > 0 ? { waitSeconds: passed.waitSeconds } : {});
	return { next: whereNext(await goOn(otium, self.signIn), body.to, url) };
});
