import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { NO_SUCH_THING, NOT_YOURS, orTryAgain, problem, readJson, SIGNED_OUT } from '$lib/server/http';
import { actorAt } from '$lib/server/identity';
import { removeNetwork, saveNetwork } from '$lib/server/places';
import { coordinatesSite } from '$lib/server/session';
import type { RequestHandler } from './$types';

const Asked = z.object({
	id: z.string().max(64).nullable(),
	siteId: z.string().max(64),
	name: z.string().trim().min(1, 'A name is needed.').max(80, 'A name of at most 80 letters.'),
	ranges: z.string().max(4_000, 'At most 4,000 letters of ranges.')
});

export const POST: RequestHandler = async ({ request, locals: { otium, staff } }) => {
	if (!staff) return problem(401, SIGNED_OUT);
	const body = await readJson(request, Asked);
	if (!body.ok) return body.response;
	const { id, siteId } = body.data;
	const known = id === null ? null : await otium.db('network').where({ id }).first('site_id');
	if ((id !== null && known?.site_id !== siteId) || !coordinatesSite(staff, siteId)) return problem(403, NOT_YOURS);
	return orTryAgain(async () => {
		const result = await saveNetwork(otium, actorAt(staff, siteId), body.data);
		return result.ok ? json(result) : problem(422, { code: 'refused', message: result.message });
	});
};

export const DELETE: RequestHandler = async ({ url, locals: { otium, staff } }) => {
	if (!staff) return problem(401, SIGNED_OUT);
	const known = await otium
		.db('network')
		.where({ id: url.searchParams.get('id') ?? '' })
		.first('id', 'site_id');
	if (!known) return problem(404, NO_SUCH_THING);
	if (!coordinatesSite(staff, known.site_id)) return problem(403, NOT_YOURS);
	await removeNetwork(otium, actorAt(staff, known.site_id), known.id);
	return json({ ok: true });
};
