import { z } from 'zod';
import { route, staff } from '$lib/server/http';
import { actorAt } from '$lib/server/identity';
import { draftFor, makeForms } from '$lib/server/paper';

/** Makes two to six forms of the paper's questions, each a paper of its own. */
export const POST = route(
	staff('write_papers'),
	z.object({ forms: z.number().int().min(2).max(6), each: z.number().int().min(1).max(250) }),
	async ({ otium, staff, params, body, request }) => {
		const { siteId } = await draftFor(otium.db, staff, params.id);
		return { forms: await makeForms(otium, staff, actorAt(staff, siteId ?? ''), params.id, body, request.signal) };
	}
);
