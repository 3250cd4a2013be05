import { drawSitting } from '$lib/server/live';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals: { otium, device }, url }) => {
	const now = otium.now();
	const drawn = device && (await drawSitting(otium.db, device.sittingId, now));
	// What a sitting says is for the device that it is bound to; one that was there before stands at the door.
	const isOthers = drawn !== null && drawn.epoch !== null && drawn.epoch !== device?.epoch;
	const code = url.searchParams.get('code') ?? '';
	if (device === null || isOthers) return { now, code, device: null, picture: null };
	const { sittingId, epoch, publicKey } = device;
	// A page can be asked for by whoever has the cookie; what it shows is told to the device that signs for it.
	return { now, code, device: { sittingId, epoch }, picture: publicKey === null ? drawn : null };
};
