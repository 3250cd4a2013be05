import { z } from 'zod';
import { mayAnywhere } from '$core/access';
import { fail } from '$core/problem';
import { anyoneWith, route } from '$lib/server/http';
import { changePassword, goOn, useLink } from '$lib/server/sign-in';
import { whereNext } from '../entered';

const Asked = z.object({
	link: z.string().max(100).nullable(),
	password: z.string().max(300),
	to: z.string().max(500)
});

/** A password of one's own: by a link that was mailed, or at the first sign-in with one that somebody else gave. */
export const POST = route(
	anyoneWith('a link; or cookie `staff`', 'that it was not used; or a sign-in that waits for `password`'),
	Asked,
	async ({ otium, body, locals, url }) => {
		const { link, password, to } = body;
		const waitSeconds = await otium.limits.asked('link', locals.address);
		if (waitSeconds > 0) fail('slow_down', { waitSeconds });
		const session = locals.staffSession;
		if (link === null && session?.awaits !== 'password') fail('signed_out');
		const changed =
			link === null
				? await changePassword(otium, session!.staff.id, password, locals.signIn)
				: await useLink(otium, link, password);
		if (!changed.ok) fail('not_taken', { message: changed.message });
		if (link !== null) return { next: '/sign-in' };
		// Whoever comes first into an empty house begins with its name and its clock.
		const isFirst = to === '/' && mayAnywhere(session!.staff, 'change_shared') && !(await otium.db('site').first('id'));
		return { next: whereNext(await goOn(otium, locals.signIn!), isFirst ? '/set-up' : to, url) };
	}
);
