import { z } from 'zod';
import { may } from '$core/access';
import { fail } from '$core/problem';
import { endedBy, findGrant, mustReach, withdrawGrant } from '$lib/server/grants';
import { confirmed, route, staff } from '$lib/server/http';
import { actorAt } from '$lib/server/identity';
import { placeOf } from '$lib/server/session';
import { loadSitting } from '$lib/server/sitting';

const Asked = z.object({
	id: z.string().max(130),
	sittingId: z.string().max(64),
	/** Also when somebody who is at work has used more than would be left. */
	even: z.boolean().default(false)
});

/** Takes a grant back; it stays in the record. */
export const POST = route(confirmed(staff('grant')), Asked, async ({ otium, staff, body }) => {
	const [grant, one] = [await findGrant(otium.db, body.id), await loadSitting(otium.db, body.sittingId, otium.now())];
	if (!grant || !one || grant.candidateId !== one.candidate.id) fail('not_found');
	if (!may(staff, 'grant', placeOf(one.session))) fail('not_yours');
	await mustReach(otium.db, staff, grant);
	const ended = body.even ? [] : await endedBy(otium.db, grant, otium.now());
	if (ended.length > 0) fail('ends_work', { message: ended.join(' ') });
	const isDone = await withdrawGrant(otium, actorAt(staff, one.session.site.id), grant.id);
	if (!isDone) fail('already', { message: 'This grant was withdrawn already.' });
	return { ok: true };
});
