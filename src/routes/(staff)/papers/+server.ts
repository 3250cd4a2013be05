import { z } from 'zod';
import { actorAt } from '$lib/server/identity';
import { route, staff } from '$lib/server/http';
import { makeDraft } from '$lib/server/paper';

const Asked = z.object({
	title: z.string().trim().min(1, 'A paper needs a title.').max(200),
	/** Whose it is; null: of all sites. */
	siteId: z.string().max(64).nullable(),
	/** The version to go on from. */
	from: z.string().max(64).nullable(),
	/** Whether another paper is made of it. */
	isCopy: z.boolean().optional()
});

/** A paper to write, new or the next version of one. */
export const POST = route(staff('write_papers'), Asked, async ({ otium, staff, body }) => ({
	id: await makeDraft(otium, staff, actorAt(staff, body.siteId ?? ''), body)
}));
