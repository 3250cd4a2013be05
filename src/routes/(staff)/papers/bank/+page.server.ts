import { sitesWith } from '$core/access';
import { bankTopics, writerOf } from '$lib/server/bank';
import { requireStaff } from '$lib/server/http';
import { listPapers } from '$lib/server/paper';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'write_papers');
	const { db } = event.locals.otium;
	const own = sitesWith(staff, 'write_papers');
	const sites: { id: string; name: string }[] = await db('site').orderBy('name').select('id', 'name');
	const colleagues: { id: string; name: string }[] = await db('staff')
		.join('staff_role', 'staff_role.staff_id', 'staff.id')
		.whereIn('role', ['author', 'coordinator'])
		.whereNot('staff.id', staff.id)
		.distinct('staff.id', 'staff.name')
		.orderBy('staff.name');
	const drafts = (await listPapers(db, staff)).flatMap(({ title, draft }) => (draft ? [{ id: draft.id, title }] : []));
	return {
		topics: await bankTopics(db, writerOf(staff)),
		sites,
		mySites: own,
		colleagues,
		drafts
	};
};
