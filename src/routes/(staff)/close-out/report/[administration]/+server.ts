import { fail } from '$core/problem';
import { standingOf } from '$lib/server/closing';
import { download, route, staff } from '$lib/server/http';
import { administrationReport } from '$lib/server/results';

/** The report of an administration, or of one site of it (`?site=`): of the sites that somebody may see. */
export const GET = route(staff('see_closing'), async ({ otium, staff, params, url }) => {
	const standing = await standingOf(otium, params.administration, staff);
	if (!standing || standing.sites.length === 0) fail('not_found');
	const asked = url.searchParams.get('site');
	const sites = asked === null ? standing.sites : standing.sites.filter(({ id }) => id === asked);
	if (sites.length === 0) fail('not_found');
	const report = await administrationReport(otium, { ...standing, sites });
	return download(`${standing.administration.name}, report.pdf`, 'application/pdf', report);
});
