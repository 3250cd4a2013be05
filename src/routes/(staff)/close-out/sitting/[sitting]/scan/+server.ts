import { may } from '$core/access';
import { fail } from '$core/problem';
import { addScan, MOST_HANDED_BYTES } from '$lib/server/handed';
import { route, staff } from '$lib/server/http';
import { actorAt } from '$lib/server/identity';
import { loadSitting } from '$lib/server/sitting';

/** A scan of what somebody worked on paper, as the body; `question` says to which it belongs. */
export const PUT = route(staff('decide'), async ({ otium, staff, params, url, request }) => {
	const one = await loadSitting(otium.db, params.sitting, otium.now());
	if (!one) fail('not_found');
	const { site, proctorIds } = one.session;
	if (!may(staff, 'decide', { siteId: site.id, proctorIds })) fail('not_yours');
	if (Number(request.headers.get('content-length') ?? 0) > MOST_HANDED_BYTES) fail('handed_file', { status: 413 });
	await addScan(otium, actorAt(staff, site.id), params.sitting, url.searchParams.get('question') ?? '', {
		name: (url.searchParams.get('name') ?? '').slice(0, 200),
		bytes: new Uint8Array(await request.arrayBuffer())
	});
	return { ok: true };
});
