import { addressOf } from '$lib/server/house-card';
import QRCode from 'qrcode';
import { noPage, requireSession } from '$lib/server/http';
import { helpIn } from '$lib/server/contacts';
import { drawForPage } from '$lib/server/live';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const { by, session } = await requireSession(event, event.params.id, 'see_session');
	const { otium } = event.locals;
	const drawn = await drawForPage(otium, event.params.id, otium.now());
	if (!drawn) noPage('not_found');
	const door = `${await addressOf(event.locals.otium.db, event.url)}/sit`;
	return {
		...drawn,
		help: await helpIn(otium.db, session.administrationId),
		coordinates: by.role === 'coordinator',
		door,
		qr: await QRCode.toString(door, { type: 'svg', margin: 1 })
	};
};
