import { fail } from '$core/problem';
import { refusal } from '$core/sitting';
import { boundDevice, mustBeProven, refuse, route } from '$lib/server/http';
import { reviewFor } from '$lib/server/review';
import { loadSitting } from '$lib/server/sitting';

/** What the rules let a candidate see afterwards. */
export const GET = route(boundDevice, async ({ otium, device, locals }) => {
	const one = await loadSitting(otium.db, device.sittingId, otium.now());
	if (!one) refuse(refusal('gone'));
	if (one.session.rules.lockdown.alsoForReview) mustBeProven(one.session, locals.client);
	const review = await reviewFor(otium.db, one, otium.now());
	if (!review) fail('no_review');
	return review;
});
