import { fail } from '$core/problem';
import { boundDevice, mustMatch, route } from '$lib/server/http';
import { keepSnapshot, MOST_SNAPSHOT_BYTES } from '$lib/server/pictures';
import { loadSitting } from '$lib/server/sitting';

/** A small picture from the camera, where the rules ask for them. */
export const POST = route(boundDevice, async ({ otium, device, request, locals }) => {
	if (Number(request.headers.get('content-length') ?? 0) > MOST_SNAPSHOT_BYTES) fail('snapshot', { status: 413 });
	await otium.quotas.take('pictures', device.sittingId);
	const one = await loadSitting(otium.db, device.sittingId, otium.now());
	const { snapshotSeconds, snapshotDays } = one!.session.rules.lockdown;
	if (snapshotSeconds === null || one!.sitting.state !== 'working') fail('snapshot', { status: 409 });
	const bytes = new Uint8Array(await request.arrayBuffer());
	mustMatch(locals.digest, bytes);
	if (!(await keepSnapshot(otium, device.sittingId, bytes, snapshotSeconds, snapshotDays))) fail('snapshot');
	return { ok: true };
});
