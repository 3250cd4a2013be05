import { requireStaff } from '$lib/server/http';
import { blankInput, choicesFor } from '$lib/server/session';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'prepare');
	const { otium } = event.locals;
	const { site } = await event.parent();
	return { choices: await choicesFor(otium.db, staff), input: blankInput(site.zone, otium.now()) };
};
