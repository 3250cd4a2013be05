import { z } from 'zod';
import { fail } from '$core/problem';
import { anyoneWith, route } from '$lib/server/http';
import { askToUse, goOn, openSession, whoUsed, type Asking } from '$lib/server/sign-in';
import { keepSignIn, whence, whereNext } from '../entered';

const Asked = z.discriminatedUnion('act', [
	z.object({ act: z.literal('ask') }),
	z.object({
		act: z.literal('use'),
		id: z.string().max(40),
		response: z.looseObject({ id: z.string().max(1_000) }),
		to: z.string().max(500)
	})
]);

/** Signs in by a passkey alone, which shows both that it is there and who uses it; or passes the second step with one. */
export const POST = route(
	anyoneWith('a passkey; cookie `staff` where a sign-in waits', 'its answer to a challenge of this very sign-in'),
	Asked,
	async ({ otium, body, url, cookies, locals, request }) => {
		const waitSeconds = await otium.limits.asked('passkey', locals.address);
		if (waitSeconds > 0) fail('slow_down', { waitSeconds });
		const session = locals.staffSession;
		const isSecond = session?.awaits === 'second';
		const asking: Asking = isSecond
			? { act: 'second', staffId: session.staff.id, signIn: locals.signIn }
			: { act: 'sign_in', staffId: null, signIn: null };
		if (body.act === 'ask') return askToUse(otium, asking, url);
		const staffId = await whoUsed(otium, body.id, asking, body.response as never, url);
		if (staffId === null) fail('wrong_passkey');
		if (isSecond) return { next: whereNext(await goOn(otium, locals.signIn!), body.to, url) };
		const from = await whence({ locals, request, cookies, url });
		const opened = await openSession(otium, staffId, from, true);
		keepSignIn(cookies, url, otium.now(), opened);
		return { next: whereNext(opened.awaits, body.to, url) };
	}
);
