import { z } from 'zod';
import { FORM_LETTERS } from '$core/paper';
import { route, staff } from '$lib/server/http';
import { divideForms } from '$lib/server/paper';

/** Divides the paper's questions into two to six forms; whoever asked keeps them with the paper, or does not. */
export const POST = route(
	staff('write_papers'),
	z.object({ forms: z.number().int().min(2).max(FORM_LETTERS.length), each: z.number().int().min(1).max(250) }),
	async ({ otium, staff, params, body, request }) => ({
		forms: await divideForms(otium, staff, params.id, body, request.signal)
	})
);
