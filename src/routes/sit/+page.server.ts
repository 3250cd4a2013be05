import { drawSitting } from '$lib/server/live';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals: { otium, device }, url }) => ({
	now: otium.now(),
	code: url.searchParams.get('code') ?? '',
	device,
	picture: device ? await drawSitting(otium.db, device.sittingId, otium.now()) : null
});
