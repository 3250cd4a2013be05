import { addressOf } from '$lib/server/house-card';
import { may } from '$core/access';
import { whereEveryWord } from '$lib/server/db';
import { requireStaff } from '$lib/server/http';
import { lettersFor, mailLeaves, templateFor, type Mail } from '$lib/server/mail';
import { coordinatedSites, findSession, findSessions, placeOf } from '$lib/server/session';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'prepare');
	const { otium } = event.locals;
	const now = otium.now();
	const params = event.url.searchParams;
	const kind = params.get('to') === 'proctor' ? ('proctor' as const) : ('candidate' as const);
	const sessions = (await findSessions(otium.db, (query) => query.whereNull('ended_at'))).filter((session) =>
		may(staff, 'prepare', placeOf(session))
	);
	const asked = params.get('session');
	const session = asked ? await findSession(otium.db, asked) : null;
	const mine = session && may(staff, 'prepare', placeOf(session)) ? session : null;
	const template = await templateFor(otium.db, kind);
	const text = (params.get('text') ?? '').slice(0, 100);
	const outbox: Mail[] = await otium
		.db('mail')
		.whereIn(
			'session_id',
			mine
				? [mine.id]
				: otium
						.db('session')
						.whereIn(
							'id',
							sessions.map((one) => one.id)
						)
						.select('id')
		)
		.modify((query) => whereEveryWord(query, text, ['to_name', 'to_address', 'subject']))
		.orderBy('made_at', 'desc')
		.limit(100);
	return {
		sessions: sessions.map((one) => ({ id: one.id, name: one.name })),
		session: mine ? { id: mine.id, name: mine.name, zone: mine.site.zone, proctors: mine.proctorIds.length } : null,
		kind,
		template,
		text,
		leaves: mailLeaves(),
		/** The words are those of all sites. */
		mayChangeWords: coordinatedSites(staff) === null,
		letters: mine ? await lettersFor(otium.db, mine, kind, template, await addressOf(otium.db, event.url), now) : [],
		outbox: outbox.map(({ id, made_at, to_name, to_address, subject, state, sent_at, trouble }) => ({
			id,
			at: sent_at ?? made_at,
			name: to_name,
			address: to_address,
			subject,
			state,
			trouble
		}))
	};
};
