import { administrationAsked } from '$lib/server/http';
import { helpIn } from '$lib/server/contacts';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const { administration, all, mayChange } = await administrationAsked(event);
	const { db } = event.locals.otium;
	return { administration, all, mayChange, contacts: administration ? await helpIn(db, administration.id) : [] };
};
