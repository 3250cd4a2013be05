import { noPage, requireStaff } from '$lib/server/http';
import { findSheet, mayChangeSheet } from '$lib/server/rules';
import { choicesFor } from '$lib/server/session';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'prepare');
	const { otium } = event.locals;
	const sheet = await findSheet(otium.db, event.params.id);
	if (!sheet) noPage('not_found');
	return { sheet, mayChange: mayChangeSheet(staff, sheet), networks: (await choicesFor(otium.db, staff, [])).networks };
};
