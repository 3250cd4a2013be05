import { sitesWith, type StaffMember } from '$core/access';
import type { Called } from '$core/grants';
import type { Query } from '../db';

/** The sites where somebody gives grants, by name. */
export function grantSites(db: Query, staff: StaffMember): Promise<(Called & { zone: string })[]> {
	const sites = sitesWith(staff, 'grant');
	return db('site')
		.modify((query) => {
			if (sites !== null) query.whereIn('id', sites);
		})
		.orderBy('name', 'desc')
		.select('id', 'name', 'zone');
}
