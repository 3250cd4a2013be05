import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { NO_SUCH_THING, NOT_YOURS, orTryAgain, problem, readJson, SIGNED_OUT } from '$lib/server/http';
import { actorAt, makeSiteKey, withdrawSiteKey } from '$lib/server/identity';
import { coordinatesSite } from '$lib/server/session';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = async ({ request, locals: { otium, staff } }) => {
	if (!staff) return problem(401, SIGNED_OUT);
	const body = await readJson(request, z.object({ siteId: z.string().max(64) }));
	if (!body.ok) return body.response;
	const { siteId } = body.data;
	if (!coordinatesSite(staff, siteId) || !(await otium.db('site').where({ id: siteId }).first('id')))
		return problem(403, NOT_YOURS);
	return orTryAgain(async () => json({ key: await makeSiteKey(otium, actorAt(staff, siteId), siteId) }));
};

export const DELETE: RequestHandler = async ({ url, locals: { otium, staff } }) => {
	if (!staff) return problem(401, SIGNED_OUT);
	const key = await otium
		.db('site_key')
		.where({ id: url.searchParams.get('id') ?? '' })
		.first('id', 'site_id');
	if (!key) return problem(404, NO_SUCH_THING);
	if (!coordinatesSite(staff, key.site_id)) return problem(403, NOT_YOURS);
	await withdrawSiteKey(otium, actorAt(staff, key.site_id), key.id);
	return json({ ok: true });
};
