import { mediaBeside } from '$core/paper';
import { fail } from '$core/problem';
import { refusal } from '$core/sitting';
import { boundDevice, mustBeProven, refuse, route } from '$lib/server/http';
import { mediumResponse, readMedium } from '$lib/server/media';
import { loadSitting, questionsSent } from '$lib/server/sitting';

/** A file of a question that this device may see now: not before it has begun, and not of a page that has not come. */
export const GET = route(boundDevice, async ({ otium, device, params, locals }) => {
	const one = await loadSitting(otium.db, device.sittingId, otium.now());
	if (one?.sitting.state !== 'working') refuse(refusal('not_from_this_state'));
	mustBeProven(one.session, locals.client);
	const { questions } = await questionsSent(otium.db, one);
	const isShown = questions.flatMap(mediaBeside).some(({ file }) => file === params.file);
	const found = isShown ? await readMedium(otium, params.file) : null;
	if (!found) fail('not_found');
	return mediumResponse(found);
});
