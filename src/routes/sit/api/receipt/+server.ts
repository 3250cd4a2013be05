import { fail } from '$core/problem';
import { boundDevice, route } from '$lib/server/http';
import { signedReceipt } from '$lib/server/proof';

/** The receipt of what was handed in here, signed by the house, to be kept: `{ receipt }`. */
export const GET = route(boundDevice, async ({ otium, device }) => {
	const receipt = await signedReceipt(otium.db, device.sittingId, otium.now());
	if (receipt === null) fail('not_found');
	return { receipt };
});
