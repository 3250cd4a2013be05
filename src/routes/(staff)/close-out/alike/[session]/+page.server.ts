import { may } from '$core/access';
import { firstWords, questionsOf } from '$core/paper';
import { alikeView } from '$lib/server/closing';
import { requireSession } from '$lib/server/http';
import { paperVersion } from '$lib/server/paper';
import { placeOf } from '$lib/server/session';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const { session, staff } = await requireSession(event, event.params.session, 'see_closing');
	const { otium } = event.locals;
	const view = await alikeView(otium, session);
	const { content } = await paperVersion(otium.db, session.paper.id);
	const named = new Set(view.pairs.flatMap(({ wrongQuestions }) => wrongQuestions));
	return {
		...view,
		site: session.site,
		session: {
			id: session.id,
			name: session.name,
			room: session.room.name,
			rows: session.room.rows,
			seatsPerRow: session.room.seatsPerRow,
			zone: session.site.zone,
			ended: session.endedAt !== null
		},
		mayDecide: may(staff, 'decide', placeOf(session)),
		stems: Object.fromEntries(
			questionsOf(content)
				.filter(({ id }) => named.has(id))
				.map(({ id, stem }) => [id, firstWords(stem)])
		)
	};
};
