import { error } from '@sveltejs/kit';
import { may } from '$core/access';
import { NO_SUCH_THING, NOT_YOURS, requireStaff } from '$lib/server/http';
import type { Mail } from '$lib/server/mail';
import { findSession, placeOf } from '$lib/server/session';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'prepare');
	const { otium } = event.locals;
	const mail: Mail | undefined = await otium.db('mail').where({ id: event.params.mail }).first();
	const session = mail?.session_id ? await findSession(otium.db, mail.session_id) : null;
	if (!mail || !session) error(404, NO_SUCH_THING);
	if (!may(staff, 'prepare', placeOf(session))) error(403, NOT_YOURS);
	const { calendar, ...rest } = mail;
	return {
		mail: { ...rest, hasCalendar: calendar !== null },
		session: { id: session.id, name: session.name, zone: session.site.zone }
	};
};
