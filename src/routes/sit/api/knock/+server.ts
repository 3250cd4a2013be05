import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { readJson, refuse } from '$lib/server/http';
import { knock } from '$lib/server/identity';
import type { RequestHandler } from './$types';

const Typed = z.object({ code: z.string().max(60), number: z.string().max(60), family: z.string().max(120) });

export const POST: RequestHandler = async ({ request, locals, getClientAddress }) => {
	const body = await readJson(request, Typed);
	if (!body.ok) return body.response;
	const answer = await knock(locals.otium, { ...body.data, address: getClientAddress() });
	return answer.ok ? json(answer.person) : refuse(answer.refusal, answer.waitSeconds);
};
