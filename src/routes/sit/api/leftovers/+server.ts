import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { Seq, takeLeftovers } from '$lib/server/answers';
import { orNotSavedYet, readJson } from '$lib/server/http';
import type { RequestHandler } from './$types';

const Rows = z.object({
	rows: z
		.array(
			z.object({
				sittingId: z.string().min(1).max(64),
				epoch: z.number().int().min(1).max(100_000),
				seq: Seq,
				iv: z.string().length(16).optional(),
				data: z.string().max(300_000).optional(),
				plain: z.unknown().optional()
			})
		)
		.min(1)
		.max(200)
});

/** What earlier lives of this device had kept and not sent; the seal of each row says where it comes from. */
export const POST: RequestHandler = async ({ request, locals: { otium, device } }) => {
	const body = await readJson(request, Rows);
	if (!body.ok) return body.response;
	return orNotSavedYet(async () => json(await takeLeftovers(otium, body.data.rows, device)));
};
