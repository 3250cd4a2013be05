import { noPage, requireSession } from '$lib/server/http';
import { drawForPage } from '$lib/server/live';
import { helpIn } from '$lib/server/contacts';
import { contactsFor } from '$lib/server/session';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const { by, session } = await requireSession(event, event.params.id, 'see_session');
	const { otium } = event.locals;
	const drawn = await drawForPage(otium, event.params.id, otium.now());
	if (!drawn) noPage('not_found');
	return {
		...drawn,
		site: session.site,
		isMasked: event.cookies.get(`otium-masked-${session.id}`) === '1',
		coordinates: by.role === 'coordinator',
		contacts: await contactsFor(otium.db, session),
		help: await helpIn(otium.db, session.administrationId)
	};
};
