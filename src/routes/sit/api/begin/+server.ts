import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { NOT_AT_THE_DOOR, orNotSavedYet, problem, readJson, refuse } from '$lib/server/http';
import { refusal } from '$core/sitting';
import { begin, loadSitting } from '$lib/server/sitting';
import type { RequestHandler } from './$types';

const Asked = z.object({ commandId: z.string().min(8).max(64), startWord: z.string().max(80).default('') });

export const POST: RequestHandler = async ({ request, locals: { otium, device, client } }) => {
	if (!device) return problem(401, NOT_AT_THE_DOOR);
	const body = await readJson(request, Asked);
	if (!body.ok) return body.response;
	const one = await loadSitting(otium.db, device.sittingId, otium.now());
	if (one?.sitting.device?.epoch !== device.epoch) return refuse(refusal('second_device'));
	return orNotSavedYet(async () => {
		const outcome = await begin(otium, device.sittingId, body.data.commandId, body.data.startWord, client);
		return outcome.ok ? json({ ok: true }) : refuse(outcome.refusal);
	});
};
