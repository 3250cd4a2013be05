import { z } from 'zod';
import { fillFromBank } from '$lib/server/bank';
import { route, staff } from '$lib/server/http';
import { draftFor } from '$lib/server/paper';

/** What the bank would add so that the paper's plan is met. Nothing is kept: its author adds what they want of it. */
export const POST = route(
	staff('write_papers'),
	z.object({ minutes: z.number().min(1).max(600).nullable() }),
	async ({ otium, staff, params, body, request }) => {
		const { content } = await draftFor(otium.db, staff, params.id);
		return fillFromBank(otium, staff, content, body.minutes, request.signal);
	}
);
