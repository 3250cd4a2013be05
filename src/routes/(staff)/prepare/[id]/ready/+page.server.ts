import { error } from '@sveltejs/kit';
import { may } from '$core/access';
import { requireSession } from '$lib/server/http';
import { PRINTS } from '$lib/server/print';
import { readinessOf } from '$lib/server/readiness';
import { doorOpensAt, placeOf } from '$lib/server/session';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const { staff, session } = await requireSession(event, event.params.id, 'prepare');
	const { otium } = event.locals;
	const now = otium.now();
	const ready = await readinessOf(otium.db, session, now);
	if (!ready) error(409, { message: 'The session’s room or paper is gone.', instead: 'Change the session.' });
	return {
		site: session.site,
		session: {
			id: session.id,
			name: session.name,
			kind: session.kind,
			opens: session.window.opens,
			zone: session.site.zone,
			door: doorOpensAt(session),
			endedAt: session.endedAt,
			code: session.doorCode === null ? null : session.turningKey !== null ? 'turning' : session.doorCode,
			codeHidden: session.codeHidden,
			codeDiesAt: session.codeDiesAt,
			slips: session.rules.door.slips
		},
		mayRun: may(staff, 'run_session', placeOf(session)),
		sentence: ready.plan.sentence,
		protection: ready.plan.protection,
		lines: ready.lines,
		prints: Object.entries(PRINTS).map(([key, name]) => ({ key, name }))
	};
};
