import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { lowerHand, raiseHand } from '$lib/server/messages';
import { allowDevice, orNotSavedYet, readJson } from '$lib/server/http';
import type { RequestHandler } from './$types';

const Asked = z.object({ up: z.boolean(), text: z.string().trim().max(300).default('') });

/** A hand goes up, with words or without, or down again. */
export const POST: RequestHandler = async (event) => {
	const allowed = await allowDevice(event);
	if (!allowed.ok) return allowed.response;
	const { otium, device } = allowed;
	const { request } = event;
	const body = await readJson(request, Asked);
	if (!body.ok) return body.response;
	return orNotSavedYet(async () => {
		if (body.data.up) await raiseHand(otium, device.sittingId, body.data.text);
		else await lowerHand(otium, [device.sittingId]);
		return json({ ok: true });
	});
};
