import { requireStaff } from '$lib/server/http';
import { passkeysOf, secondStepsOf, sessionsOf } from '$lib/server/sign-in';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const { id } = requireStaff(event);
	const { otium, signIn } = event.locals;
	return {
		has: await secondStepsOf(otium.db, id),
		passkeys: await passkeysOf(otium.db, id),
		sessions: await sessionsOf(otium.db, id, signIn ?? '')
	};
};
