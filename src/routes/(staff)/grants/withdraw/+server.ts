import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { may } from '$core/access';
import { findGrant, withdrawGrant } from '$lib/server/grants';
import { NO_SUCH_THING, NOT_YOURS, problem, readJson, SIGNED_OUT } from '$lib/server/http';
import { actorAt } from '$lib/server/identity';
import { placeOf } from '$lib/server/session';
import { loadSitting } from '$lib/server/sitting';
import type { RequestHandler } from './$types';

const Asked = z.object({ id: z.string().max(130), sittingId: z.string().max(64) });

/** Takes a grant back; it stays in the record. */
export const POST: RequestHandler = async ({ request, locals: { otium, staff } }) => {
	if (!staff) return problem(401, SIGNED_OUT);
	const body = await readJson(request, Asked);
	if (!body.ok) return body.response;
	const [grant, one] = [
		await findGrant(otium.db, body.data.id),
		await loadSitting(otium.db, body.data.sittingId, otium.now())
	];
	if (!grant || !one || grant.candidateId !== one.candidate.id) return problem(404, NO_SUCH_THING);
	if (!may(staff, 'grant', placeOf(one.session))) return problem(403, NOT_YOURS);
	const isDone = await withdrawGrant(otium, actorAt(staff, one.session.site.id), grant.id);
	return isDone
		? json({ ok: true })
		: problem(409, { code: 'already', message: 'This grant was withdrawn already.', instead: 'Nothing needs doing.' });
};
