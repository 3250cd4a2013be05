import { mayAnywhere } from '$core/access';
import { requireStaff } from '$lib/server/http';
import { owedTo } from '$lib/server/owed';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'grant');
	const { otium } = event.locals;
	return { owed: await owedTo(otium.db, staff, otium.now()), plans: mayAnywhere(staff, 'prepare') };
};
