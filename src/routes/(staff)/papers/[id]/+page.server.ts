import { error } from '@sveltejs/kit';
import { ProblemError } from '$core/problem';
import { requireStaff } from '$lib/server/http';
import { draftFor } from '$lib/server/paper';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'write_papers');
	const { db } = event.locals.otium;
	try {
		const draft = await draftFor(db, staff, event.params.id);
		const site = draft.siteId === null ? null : await db('site').where({ id: draft.siteId }).first('name');
		return { draft, owner: (site?.name as string | undefined) ?? null };
	} catch (refused) {
		if (refused instanceof ProblemError) error(refused.status, refused.problem);
		throw refused;
	}
};
