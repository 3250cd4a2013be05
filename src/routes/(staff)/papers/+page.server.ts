import { sitesWith } from '$core/access';
import { requireStaff } from '$lib/server/http';
import { listPapers } from '$lib/server/paper';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'write_papers');
	const { db } = event.locals.otium;
	const own = sitesWith(staff, 'write_papers');
	const sites: { id: string; name: string }[] = await db('site')
		.modify((query) => {
			if (own !== null) query.whereIn('id', own);
		})
		.orderBy('name')
		.select('id', 'name');
	return { papers: await listPapers(db, staff), sites, forAll: own === null };
};
