import { requireSession } from '$lib/server/http';
import { accountFor } from '$lib/server/closing';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const { session } = await requireSession(event, event.params.id, 'see_closing');
	const { ledger, lines } = await accountFor(event.locals.otium.db, session);
	return {
		session: {
			id: session.id,
			name: session.name,
			kind: session.kind,
			room: session.room.name,
			zone: session.site.zone,
			opens: session.window.opens,
			endedAt: session.endedAt
		},
		ledger,
		lines: lines.map(({ score, ...line }) => ({
			...line,
			points: score?.points ?? null,
			outOf: score?.outOf ?? null,
			blanks: score?.blanks ?? null
		}))
	};
};
