import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { readJson, refuse } from '$lib/server/http';
import { knock } from '$lib/server/identity';
import type { RequestHandler } from './$types';

const Typed = z.object({
	code: z.string().max(60),
	number: z.string().max(60),
	family: z.string().max(120),
	given: z.string().max(120).optional(),
	/** `31-05` */
	birthday: z.string().max(5).optional(),
	deviceName: z.string().max(80).optional()
});

export const POST: RequestHandler = async ({ request, locals }) => {
	const body = await readJson(request, Typed);
	if (!body.ok) return body.response;
	const answer = await knock(locals.otium, { ...body.data, address: locals.address, client: locals.client });
	return answer.ok ? json(answer.person) : refuse(answer.refusal, answer.waitSeconds);
};
