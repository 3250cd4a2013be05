import { fail } from '$core/problem';
import { boundDevice, route } from '$lib/server/http';
import { readHanded } from '$lib/server/handed';
import { mediumResponse } from '$lib/server/media';

/** A file that was handed over in this sitting. */
export const GET = route(boundDevice, async ({ otium, device, params }) => {
	const found = await readHanded(otium, device.sittingId, params.id);
	if (!found) fail('not_found');
	return mediumResponse(found);
});
