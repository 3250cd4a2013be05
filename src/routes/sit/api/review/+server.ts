import { clientFor } from '$core/access';
import { json } from '@sveltejs/kit';
import { refusal } from '$core/sitting';
import { allowDevice, problem, refuse } from '$lib/server/http';
import { reviewFor } from '$lib/server/review';
import { loadSitting } from '$lib/server/sitting';
import type { RequestHandler } from './$types';

/** What the rules let a candidate see afterwards. */
export const GET: RequestHandler = async (event) => {
	const allowed = await allowDevice(event);
	if (!allowed.ok) return allowed.response;
	const { otium, device } = allowed;
	const { client } = event.locals;
	const one = await loadSitting(otium.db, device.sittingId, otium.now());
	if (!one) return refuse(refusal('gone'));
	if (one.session.rules.lockdown.alsoForReview) {
		const proven = clientFor(one.session, client);
		if (proven === 'missing') return refuse(refusal('client_unproven'));
		if (proven === 'outdated') return refuse(refusal('client_outdated'));
	}
	const review = await reviewFor(otium.db, one, otium.now());
	if (review) return json(review);
	return problem(409, {
		code: 'no_review',
		message: 'There is nothing to see yet.',
		instead: 'What may be seen, and when, is in the hands of those who run this examination.'
	});
};
