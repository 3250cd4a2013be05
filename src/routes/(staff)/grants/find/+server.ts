import { findForGrant } from '$lib/server/grants';
import { route, staff } from '$lib/server/http';

/** Candidates and groups by any part of name or number, each with the sittings that a grant could reach. */
export const GET = route(staff('grant'), async ({ url, otium, staff }) => {
	const text = (url.searchParams.get('text') ?? '').slice(0, 100).trim();
	return findForGrant(otium.db, staff, text, otium.now());
});
