import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { allowDevice, orNotSavedYet, readJson, refuse } from '$lib/server/http';
import { endBreak, takeBreak } from '$lib/server/sitting';
import type { RequestHandler } from './$types';

const Asked = z.object({ on: z.boolean() });

/** A granted break begins, or ends before its time. */
export const POST: RequestHandler = async (event) => {
	const allowed = await allowDevice(event);
	if (!allowed.ok) return allowed.response;
	const { otium, device } = allowed;
	const { request } = event;
	const body = await readJson(request, Asked);
	if (!body.ok) return body.response;
	return orNotSavedYet(async () => {
		const answer = await (body.data.on ? takeBreak : endBreak)(otium, device.sittingId);
		return answer.ok ? json({ ok: true }) : refuse(answer.refusal);
	});
};
