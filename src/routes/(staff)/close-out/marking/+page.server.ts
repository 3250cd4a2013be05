import { mayAnywhere } from '$core/access';
import { noPage, requireStaff } from '$lib/server/http';
import { handProgress, marksOf, workOfMarker } from '$lib/server/marking';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event);
	const decides = mayAnywhere(staff, 'see_closing');
	if (!decides && !mayAnywhere(staff, 'mark')) noPage('not_yours');
	const { here } = await event.parent();
	const { db } = event.locals.otium;
	const empty = { questions: [], people: [], work: null, marks: [] };
	if (!here) return empty;
	const all = await handProgress(db, here.id);
	const mine = all.filter(({ byMarker }) => decides || byMarker.some(({ id }) => id === staff.id));
	const [paper, question] = [event.url.searchParams.get('paper'), event.url.searchParams.get('question')];
	const chosen = mine.find((one) => one.paperId === paper && one.question.id === question);
	const of = chosen && { administrationId: here.id, paperId: chosen.paperId, questionId: chosen.question.id };
	const isMarker = chosen?.byMarker.some(({ id }) => id === staff.id);
	const people: { id: string; name: string }[] = await db('staff').orderBy('name').select('id', 'name');
	const roles: { staff_id: string }[] = await db('staff_role')
		.whereIn('role', ['author', 'marker', 'coordinator'])
		.distinct('staff_id');
	const known = new Set(roles.map(({ staff_id }) => staff_id));
	return {
		questions: mine,
		/** Names of markers for those who decide; a marker reads no other’s. */
		people: people.filter(({ id }) => (decides ? known.has(id) : id === staff.id)),
		me: staff.id,
		work: of && isMarker ? await workOfMarker(db, staff.id, of) : null,
		marks: of && mayAnywhere(staff, 'decide') ? await marksOf(db, of) : []
	};
};
