import { fail, redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { ownPath, readCookie, writeCookie } from '$lib/server/http';
import { signIn } from '$lib/server/identity';
import type { Actions, PageServerLoad } from './$types';

const Typed = z.object({
	name: z.string().trim().min(1).max(120),
	password: z.string().min(1).max(300),
	to: z.string().max(500)
});

export const load: PageServerLoad = ({ locals, url }) => {
	const to = ownPath(url.searchParams.get('to'), url);
	if (locals.staff) redirect(303, to);
	return { to };
};

export const actions: Actions = {
	default: async ({ request, locals, cookies, url }) => {
		const form = Object.fromEntries(await request.formData());
		const typed = Typed.safeParse(form);
		if (!typed.success)
			return fail(400, { name: String(form.name ?? ''), message: 'Enter your name and your password.' });
		const { name, password, to } = typed.data;
		const result = await signIn(
			locals.otium,
			name,
			password,
			locals.address,
			readCookie(cookies, url, 'known') ?? null
		);
		if (!result.ok) {
			const message =
				result.waitSeconds > 0
					? `Too many wrong tries. Wait ${result.waitSeconds} seconds, then try once more.`
					: 'That name and password do not go together. Check both; capitals count in the password.';
			return fail(result.waitSeconds > 0 ? 429 : 401, { name, message });
		}
		const secondsTo = (instant: number) => Math.floor((instant - locals.otium.now()) / 1_000);
		writeCookie(cookies, url, 'staff', result.token, secondsTo(result.expires));
		writeCookie(cookies, url, 'known', result.known, secondsTo(result.knownUntil));
		redirect(303, ownPath(to, url));
	}
};
