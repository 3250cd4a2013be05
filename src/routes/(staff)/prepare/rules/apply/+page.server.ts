import { may } from '$core/access';
import { valueInWords } from '$core/rules';
import { noPage, requireStaff } from '$lib/server/http';
import { findSheet, foreseeApplication } from '$lib/server/rules';
import { findSessions, placeOf } from '$lib/server/session';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'prepare');
	const { otium } = event.locals;
	const sheet = await findSheet(otium.db, event.url.searchParams.get('sheet') ?? '');
	if (!sheet) noPage('not_found');
	const open = await findSessions(otium.db, (query) => query.whereNull('ended_at'));
	const mine = open.filter((session) => may(staff, 'prepare', placeOf(session)));
	const applications = await foreseeApplication(
		otium.db,
		sheet,
		mine.map((session) => session.id),
		otium.now()
	);
	return {
		sheet: { id: sheet.id, name: sheet.name },
		sessions: applications.map(({ session, changes, refused }) => ({
			id: session.id,
			name: session.name,
			room: session.room.name,
			opens: session.window.opens,
			zone: session.site.zone,
			revision: session.revision,
			refused,
			changes: changes.map(
				({ setting, before, after }) =>
					`${setting.name}: ${valueInWords(setting, before)} → ${valueInWords(setting, after)}`
			)
		}))
	};
};
