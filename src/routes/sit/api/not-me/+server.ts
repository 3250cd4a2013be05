import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { orTryAgain, readJson } from '$lib/server/http';
import { notMe } from '$lib/server/identity';
import type { RequestHandler } from './$types';

const Asked = z.object({ note: z.string().max(2_000), deviceName: z.string().max(80).default('A device') });

/** "No" to "Is this you?"; the note proves that the door had asked. */
export const POST: RequestHandler = async ({ request, locals: { otium } }) => {
	const body = await readJson(request, Asked);
	if (!body.ok) return body.response;
	return orTryAgain(async () => {
		await notMe(otium, body.data.note, body.data.deviceName);
		return json({ ok: true });
	});
};
