import { may } from '$core/access';
import { noPage, requireStaff } from '$lib/server/http';
import { wordsOf, type Mail } from '$lib/server/mail';
import { findSession, placeOf } from '$lib/server/session';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'prepare');
	const { otium } = event.locals;
	const mail: Mail | undefined = await otium.db('mail').where({ id: event.params.mail }).first();
	const session = mail?.session_id ? await findSession(otium.db, mail.session_id) : null;
	if (!mail || !session) noPage('not_found');
	if (!may(staff, 'prepare', placeOf(session))) noPage('not_yours');
	const { calendar, ...rest } = mail;
	return {
		mail: { ...rest, body: wordsOf(otium.db, mail), hasCalendar: calendar !== null },
		session: { id: session.id, name: session.name, zone: session.site.zone }
	};
};
