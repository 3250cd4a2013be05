import { mayAnywhere } from '$core/access';
import { helpIn } from '$lib/server/contacts';
import { requireStaff } from '$lib/server/http';
import { technicalList } from '$lib/server/technical';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'see_technical');
	const { db } = event.locals.otium;
	const sessions = await technicalList(db, staff);
	const administrations: string[] = await db('session')
		.whereIn(
			'id',
			sessions.map(({ id }) => id)
		)
		.distinct('administration_id')
		.pluck('administration_id');
	const help = (await Promise.all(administrations.map((id) => helpIn(db, id)))).flat();
	return { sessions, help, mayPrepare: mayAnywhere(staff, 'prepare') };
};
