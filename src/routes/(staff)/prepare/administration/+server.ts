import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { mayAnywhere } from '$core/access';
import { NOT_YOURS, orTryAgain, problem, readJson, SIGNED_OUT } from '$lib/server/http';
import { makeAdministration, makeSite, saveAdministration } from '$lib/server/places';
import { coordinatedSites } from '$lib/server/session';
import type { RequestHandler } from './$types';

const day = z.iso.date('Give a date, like 2026-12-08.').nullable();
const hour = z
	.string()
	.regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'Give a time, like 08:00.')
	.nullable();
const stock = z
	.number({ error: 'Give a whole number of sittings.' })
	.int('Give a whole number of sittings.')
	.min(0)
	.max(10_000_000)
	.nullable();
const ids = z.array(z.string().max(64)).max(500);
const Asked = z.object({
	id: z.string().max(64),
	name: z.string().trim().min(1, 'A name is needed.').max(120),
	opensOn: day,
	closesOn: day,
	bought: stock,
	sites: z.array(z.object({ id: z.string().max(64), opens: hour, closes: hour, allotted: stock })).max(500),
	papers: z.array(z.object({ id: z.string().max(64), everywhere: z.boolean(), siteIds: ids, groupIds: ids })).max(2_000)
});

const Made = z.discriminatedUnion('make', [
	z.object({ make: z.literal('administration'), name: z.string().trim().min(1, 'A name is needed.').max(120) }),
	z.object({
		make: z.literal('site'),
		name: z.string().trim().min(1, 'A name is needed.').max(80),
		zone: z.string().trim().max(60)
	})
]);

/** Makes an administration or a site. */
export const PUT: RequestHandler = async ({ request, locals: { otium, staff } }) => {
	if (!staff) return problem(401, SIGNED_OUT);
	if (!mayAnywhere(staff, 'prepare') || coordinatedSites(staff) !== null) return problem(403, NOT_YOURS);
	const body = await readJson(request, Made);
	if (!body.ok) return body.response;
	const by = { role: 'coordinator' as const, id: staff.id };
	return orTryAgain(async () => {
		const result =
			body.data.make === 'site'
				? await makeSite(otium, by, body.data.name, body.data.zone)
				: await makeAdministration(otium, by, body.data.name);
		if (!result.ok) return problem(409, { code: 'refused', message: result.message });
		return json({ ok: true, id: 'id' in result ? result.id : null });
	});
};

export const POST: RequestHandler = async ({ request, locals: { otium, staff } }) => {
	if (!staff) return problem(401, SIGNED_OUT);
	// It concerns all sites, so it takes somebody who coordinates them all.
	if (!mayAnywhere(staff, 'prepare') || coordinatedSites(staff) !== null) return problem(403, NOT_YOURS);
	const body = await readJson(request, Asked);
	if (!body.ok) return body.response;
	const { id, ...change } = body.data;
	return orTryAgain(async () => {
		const result = await saveAdministration(otium, { role: 'coordinator', id: staff.id }, id, change);
		return result.ok
			? json({ ok: true, savedAt: otium.now() })
			: problem(409, { code: 'refused', message: result.message });
	});
};
