import { error } from '@sveltejs/kit';
import { NO_SUCH_THING, requireStaff } from '$lib/server/http';
import { findSheet } from '$lib/server/rules';
import { choicesFor } from '$lib/server/session';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'prepare');
	const { otium } = event.locals;
	const sheet = await findSheet(otium.db, event.params.id);
	if (!sheet) error(404, NO_SUCH_THING);
	return { sheet, networks: (await choicesFor(otium.db, staff, [])).networks };
};
