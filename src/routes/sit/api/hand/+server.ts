import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { lowerHand, raiseHand } from '$lib/server/messages';
import { NOT_AT_THE_DOOR, orNotSavedYet, problem, readJson } from '$lib/server/http';
import type { RequestHandler } from './$types';

const Asked = z.object({ up: z.boolean(), text: z.string().trim().max(300).default('') });

/** A hand goes up, with words or without, or down again. */
export const POST: RequestHandler = async ({ request, locals: { otium, device } }) => {
	if (!device) return problem(401, NOT_AT_THE_DOOR);
	const body = await readJson(request, Asked);
	if (!body.ok) return body.response;
	return orNotSavedYet(async () => {
		if (body.data.up) await raiseHand(otium, device.sittingId, body.data.text);
		else await lowerHand(otium, [device.sittingId]);
		return json({ ok: true });
	});
};
