import { may } from '$core/access';
import { fail } from '$core/problem';
import { readEvidence, sitesOfEvidence } from '$lib/server/grants';
import { download, route, staff } from '$lib/server/http';

/** What was shown for a grant, for those who give grants at the candidate's site. */
export const GET = route(staff('grant'), async ({ otium, staff, params }) => {
	const sites = await sitesOfEvidence(otium.db, params.id);
	if (!sites.some((siteId) => may(staff, 'grant', { siteId, proctorIds: [] }))) fail('not_found');
	const evidence = await readEvidence(otium, params.id);
	if (!evidence) fail('not_found', { message: 'This file was deleted when its time was over.' });
	return download(evidence.name, evidence.type, evidence.bytes as Uint8Array<ArrayBuffer>);
});
