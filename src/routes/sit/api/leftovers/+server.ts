import { z } from 'zod';
import { Seq, takeLeftovers } from '$lib/server/answers';
import { anyone, route } from '$lib/server/http';

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
export const POST = route(anyone, { schema: Rows, mostBytes: 1024 * 1024 }, ({ otium, body, locals }) =>
	takeLeftovers(otium, body.rows, locals.device)
);
