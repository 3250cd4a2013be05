import { z } from 'zod';
import { Seq, takeLeftovers } from '$lib/server/answers';
import { deviceOrStranger, route } from '$lib/server/http';

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

/**
 * What earlier lives of this device had kept and not sent. It counts where the device of that sitting has signed this; the
 * seal of what others bring says where it comes from, and a person decides.
 */
export const POST = route(deviceOrStranger, { schema: Rows, mostBytes: 400 * 1024 }, ({ otium, body, device }) =>
	takeLeftovers(otium, body.rows, device)
);
