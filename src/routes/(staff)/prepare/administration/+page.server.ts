import { administrationAsked } from '$lib/server/http';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const { administration, all, mayChange } = await administrationAsked(event);
	return { administration, all, mayChange };
};
