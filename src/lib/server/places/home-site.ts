import type { StaffMember } from '$core/access';
import type { Query } from '../db';

/** The site whose clock somebody of the staff reads: one that they have a role for, or the last by name for a role at all sites; without a name: there is none yet. */
export async function homeSite(db: Query, staff: StaffMember): Promise<{ name: string; zone: string }> {
	const id = staff.roles.find((held) => held.siteId !== null)?.siteId;
	const site: { name: string; zone: string } | undefined = await db('site')
		.modify((query) => {
			if (id) query.where({ id });
		})
		.orderBy('name', 'desc')
		.first('name', 'zone');
	return site ?? { name: '', zone: 'UTC' };
}
