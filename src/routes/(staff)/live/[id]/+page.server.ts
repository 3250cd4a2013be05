import { noPage, requireSession } from '$lib/server/http';
import { drawRoom } from '$lib/server/live';
import { helpIn } from '$lib/server/contacts';
import { contactsFor } from '$lib/server/session';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const { by, session } = await requireSession(event, event.params.id, 'see_session');
	const { otium } = event.locals;
	const now = otium.now();
	const drawn = await drawRoom(otium.db, event.params.id, now, undefined, otium.presence.told);
	if (!drawn) noPage('not_found');
	return {
		picture: { now, ...drawn },
		isMasked: event.cookies.get(`otium-masked-${session.id}`) === '1',
		coordinates: by.role === 'coordinator',
		contacts: await contactsFor(otium.db, session),
		help: await helpIn(otium.db, session.administrationId)
	};
};
