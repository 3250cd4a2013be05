import { questionsOf } from '$core/paper';
import { z } from 'zod';
import { besideBank } from '$lib/server/bank';
import { route, staff } from '$lib/server/http';
import { actorAt } from '$lib/server/identity';
import { draftFor, keepOfDraft } from '$lib/server/paper';

/** Which of the paper's questions the bank has, and of which it has a newer revision. */
export const GET = route(staff('write_papers'), async ({ otium, staff, params }) => {
	const { content } = await draftFor(otium.db, staff, params.id);
	return besideBank(otium.db, staff, questionsOf(content));
});

/** Keeps these of its questions in the bank. */
export const POST = route(
	staff('write_papers'),
	z.object({ ids: z.array(z.string().max(40)).max(500) }),
	async ({ otium, staff, params, body }) => {
		const { siteId } = await draftFor(otium.db, staff, params.id);
		return keepOfDraft(otium, staff, actorAt(staff, siteId ?? ''), params.id, body.ids);
	}
);
