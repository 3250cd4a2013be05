import { may } from '$core/access';
import { fullName } from '$core/names';
import { answerInWords } from '$core/review';
import { noPage, requireStaff } from '$lib/server/http';
import { countingSittings, markedSittings } from '$lib/server/marking';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'see_closing');
	const { db } = event.locals.otium;
	const [sitting] = await countingSittings(db, (query) => query.where('sitting.id', event.params.sitting));
	if (!sitting || !may(staff, 'see_closing', { siteId: sitting.siteId, proctorIds: [] })) noPage('not_found');
	for await (const { scored } of markedSittings(db, [sitting])) {
		const { score, form, values } = scored;
		return {
			name: fullName(sitting),
			number: sitting.number,
			session: sitting.session,
			paperId: sitting.paperId,
			mayScan: may(staff, 'decide', { siteId: sitting.siteId, proctorIds: [] }),
			points: score.points,
			outOf: score.outOf,
			questions: form.questions.map((question, i) => ({
				id: question.id,
				stem: question.stem,
				given: answerInWords(question, values.get(question.id) ?? null),
				takesFiles: question.kind === 'upload',
				...score.marks[i]
			}))
		};
	}
	return noPage('not_found');
};
