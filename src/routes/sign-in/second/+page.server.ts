import { secondStepsOf } from '$lib/server/sign-in';
import { mustBeAt } from '../entered';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const { to, name, staffId } = mustBeAt('second', event);
	return { to, name, has: await secondStepsOf(event.locals.otium.db, staffId) };
};
