import { materialPages, mediaBeside } from '$core/paper';
import { fail } from '$core/problem';
import { refusal } from '$core/sitting';
import { boundDevice, mustBeProven, refuse, route } from '$lib/server/http';
import { mediumResponse, readMedium } from '$lib/server/media';
import { paperVersion } from '$lib/server/paper';
import { loadSitting, questionsSent } from '$lib/server/sitting';

/** A file of a question that this device may see now, or of what lies beside the paper: not before it has begun. */
export const GET = route(boundDevice, async ({ otium, device, params, locals }) => {
	const one = await loadSitting(otium.db, device.sittingId, otium.now());
	if (one?.sitting.state !== 'working') refuse(refusal('not_from_this_state'));
	mustBeProven(one.session, locals.client);
	const { questions } = await questionsSent(otium.db, one);
	const { content } = await paperVersion(otium.db, one.paperId);
	const shown = [...questions.flatMap(mediaBeside), ...materialPages(content)];
	const isShown = shown.some(({ file }) => file === params.file);
	const found = isShown ? await readMedium(otium, params.file) : null;
	if (!found) fail('not_found');
	return mediumResponse(found);
});
