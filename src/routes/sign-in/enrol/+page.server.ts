import { passkeysOf, secondStepsOf } from '$lib/server/sign-in';
import { mustBeAt } from '../entered';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const { to, name, staffId } = mustBeAt('enrol', event);
	const { db } = event.locals.otium;
	return { to, name, has: await secondStepsOf(db, staffId), passkeys: await passkeysOf(db, staffId) };
};
