import { readTeacherNote } from '$lib/server/identity';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals: { otium }, params }) => {
	const link = await readTeacherNote(otium.db, params.note, otium.now());
	if (!link) return { link: null };
	const site = await otium.db('site').where({ id: link.siteId }).first('name');
	return { link: { name: link.name, site: site?.name ?? '' } };
};
