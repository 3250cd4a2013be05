import { json } from '@sveltejs/kit';
import { allowDevice, orNotSavedYet, problem } from '$lib/server/http';
import { keepSnapshot, MOST_SNAPSHOT_BYTES } from '$lib/server/pictures';
import { loadSitting } from '$lib/server/sitting';
import type { RequestHandler } from './$types';

const NOT_TAKEN = { code: 'snapshot', message: 'This picture was not taken over.' };

/** A small picture from the camera, where the rules ask for them. */
export const POST: RequestHandler = async (event) => {
	const allowed = await allowDevice(event);
	if (!allowed.ok) return allowed.response;
	const { otium, device } = allowed;
	const { request } = event;
	if (Number(request.headers.get('content-length') ?? 0) > MOST_SNAPSHOT_BYTES) return problem(413, NOT_TAKEN);
	const one = await loadSitting(otium.db, device.sittingId, otium.now());
	const { snapshotSeconds, snapshotDays } = one!.session.rules.lockdown;
	if (snapshotSeconds === null || one!.sitting.device?.epoch !== device.epoch || one!.sitting.state !== 'working')
		return problem(409, NOT_TAKEN);
	const bytes = new Uint8Array(await request.arrayBuffer());
	return orNotSavedYet(async () => {
		const kept = await keepSnapshot(otium, device.sittingId, bytes, snapshotSeconds, snapshotDays);
		return kept ? json({ ok: true }) : problem(422, NOT_TAKEN);
	});
};
