import { z } from 'zod';
import { actorAt } from '$lib/server/identity';
import { route, staff } from '$lib/server/http';
import { draftFor, freezeDraft } from '$lib/server/paper';

/** Freezes it as the next version. `revision`: what whoever freezes it has read. */
export const POST = route(
	staff('write_papers'),
	z.object({ revision: z.number().int() }),
	async ({ otium, staff, params, body }) => {
		const { siteId } = await draftFor(otium.db, staff, params.id);
		return freezeDraft(otium, staff, actorAt(staff, siteId ?? ''), params.id, body.revision);
	}
);
