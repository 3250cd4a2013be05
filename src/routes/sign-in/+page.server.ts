import { counted } from '$core/names';
import { fail, redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { ownPath, readCookie, writeCookie } from '$lib/server/http';
import { oidcName, signIn } from '$lib/server/sign-in';
import { keepSignIn, whence, whereNext } from './entered';
import type { Actions, PageServerLoad } from './$types';

const Typed = z.object({
	name: z.string().trim().min(1).max(200),
	password: z.string().min(1).max(300),
	to: z.string().max(500)
});

export const load: PageServerLoad = ({ locals, url }) => {
	const to = ownPath(url.searchParams.get('to'), url);
	if (locals.staffSession) redirect(303, whereNext(locals.staffSession.awaits, to, url));
	return { to, service: oidcName(), trouble: url.searchParams.get('trouble') };
};

export const actions: Actions = {
	default: async ({ request, locals, cookies, url }) => {
		const form = Object.fromEntries(await request.formData());
		const typed = Typed.safeParse(form);
		if (!typed.success)
			return fail(400, { name: String(form.name ?? ''), message: 'Enter your name and your password.' });
		const { name, password, to } = typed.data;
		const from = await whence({ locals, request, cookies, url });
		const result = await signIn(locals.otium, name, password, from, readCookie(cookies, url, 'known') ?? null);
		if (!result.ok) {
			const message =
				result.waitSeconds > 0
					? `Too many wrong tries. Wait ${counted(result.waitSeconds, 'second')}, then try once more.`
					: 'That name and password do not go together. Check both; capitals count in the password.';
			return fail(result.waitSeconds > 0 ? 429 : 401, { name, message });
		}
		const now = locals.otium.now();
		keepSignIn(cookies, url, now, result);
		writeCookie(cookies, url, 'known', result.known, Math.floor((result.knownUntil - now) / 1_000));
		redirect(303, whereNext(result.awaits, to, url));
	}
};
