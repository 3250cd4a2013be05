import { addressOf } from '$lib/server/house-card';
import { roleFor } from '$core/access';
import { z } from 'zod';
import { fail } from '$core/problem';
import { mustBeForAll } from '$lib/server/closing';
import { confirmed, route, staff } from '$lib/server/http';
import { callBack, RELEASE_SHOWS, RELEASE_TO, releaseResults, type ReleaseShows } from '$lib/server/results';

const id = z.string().max(64);
const Asked = z.discriminatedUnion('act', [
	z.object({
		act: z.literal('release'),
		id: z.string().min(8).max(40),
		administrationId: id,
		paperId: id,
		shows: z.enum(Object.keys(RELEASE_SHOWS) as [ReleaseShows]),
		/** Roles of the staff that read them as well. */
		staff: z.array(z.enum(RELEASE_TO)).max(RELEASE_TO.length).default([]),
		/** null: at once. */
		fromAt: z.number().int().min(0).nullable()
	}),
	z.object({ act: z.literal('call_back'), id })
]);

/** Results go out to candidates, or are called back before anybody has read theirs. */
export const POST = route(confirmed(staff('release')), Asked, async ({ otium, staff, url, body }) => {
	const by = { role: roleFor(staff, 'release'), id: staff.id };
	if (body.act === 'call_back') {
		const row = await otium.db('release').where({ id: body.id }).first('administration_id');
		if (!row) fail('not_found');
		await mustBeForAll(otium.db, staff, 'release', row.administration_id);
		await callBack(otium, by, body.id);
		return {};
	}
	await mustBeForAll(otium.db, staff, 'release', body.administrationId);
	await releaseResults(otium, by, {
		...body,
		rule: { shows: body.shows, staff: body.staff },
		fromAt: body.fromAt ?? otium.now(),
		origin: await addressOf(otium.db, url)
	});
	return {};
});
