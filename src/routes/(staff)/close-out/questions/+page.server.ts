import { may } from '$core/access';
import { asShown } from '$core/correction';
import { keyInWords, nameInPaper, questionsOf } from '$core/paper';
import { asTreated } from '$core/marking';
import { fullName } from '$core/names';
import { mustBeForAll, sitesOf } from '$lib/server/closing';
import { requireStaff } from '$lib/server/http';
import { correctionsOf, countingSittings, figures, figuresElsewhere, runsOf, treatmentsFor } from '$lib/server/marking';
import { paperVersion } from '$lib/server/paper';
import type { PageServerLoad } from './$types';

/** In so many papers one can look the question up from here. */
const SHOWN_IN = 40;

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'see_closing');
	const { here } = await event.parent();
	const { otium } = event.locals;
	const { db } = otium;
	if (!here) return { papers: [], paper: null };
	const sittings = await countingSittings(db, (query) => query.where('sitting.administration_id', here.id));
	const sees = (siteId: string) => may(staff, 'see_closing', { siteId, proctorIds: [] });
	const ids = [...new Set(sittings.filter(({ siteId }) => sees(siteId)).map(({ paperId }) => paperId))];
	const papers: { id: string; title: string; version: number }[] = await db('paper')
		.whereIn('id', ids)
		.orderBy('title')
		.select('id', 'title', 'version');
	const chosen = papers.find(({ id }) => id === event.url.searchParams.get('paper')) ?? papers[0];
	if (!chosen) return { papers: [], paper: null };
	const { content } = await paperVersion(db, chosen.id);
	const treatments = await treatmentsFor(db, here.id, chosen.id);
	const of = sittings.filter(({ paperId, siteId }) => paperId === chosen.id && sees(siteId));
	const questionId = event.url.searchParams.get('question');
	const did = await figures(otium, here.id, chosen.id);
	const question = questionsOf(content).find(({ id }) => id === questionId);
	return {
		papers,
		paper: chosen,
		figures: did,
		elsewhere: await figuresElsewhere(otium, here.id, chosen.id, did),
		questions: questionsOf(content).map((one) => {
			const treated = asTreated(one, treatments.get(one.id));
			return {
				id: one.id,
				name: nameInPaper(content, one.id),
				question: treated,
				shown: asShown(treated),
				key: keyInWords(treated),
				counts: treatments.get(one.id)?.counts ?? 'as_marked',
				expected: { difficulty: one.difficulty ?? null, seconds: one.seconds ?? null }
			};
		}),
		corrections: await correctionsOf(db, here.id, chosen.id),
		runs: await runsOf(db, here.id, chosen.id),
		seenIn: question
			? await seenIn(
					db,
					of.map(({ sittingId, ...one }) => ({ sittingId, name: fullName(one) })),
					question.id
				)
			: [],
		me: staff.id,
		correctors: await correctorsOf(db, staff.id),
		mayCorrect: await mustBeForAll(db, staff, 'correct', here.id).then(
			() => true,
			() => false
		),
		sites: (await sitesOf(db, here.id)).length
	};
};

async function seenIn(
	db: App.Locals['otium']['db'],
	sittings: { sittingId: string; name: string }[],
	questionId: string
): Promise<{ sittingId: string; name: string; place: number }[]> {
	const rows: { sitting_id: string; form: string }[] = await db('form')
		.whereIn(
			'sitting_id',
			sittings.slice(0, SHOWN_IN * 3).map(({ sittingId }) => sittingId)
		)
		.where('form', 'like', `%"${questionId}"%`);
	const forms = new Map(rows.map((row) => [row.sitting_id, row.form]));
	return sittings
		.flatMap(({ sittingId, name }) => {
			const form = forms.get(sittingId);
			const place = form
				? (JSON.parse(form) as { questions: { id: string }[] }).questions.findIndex(({ id }) => id === questionId)
				: -1;
			return place < 0 ? [] : [{ sittingId, name, place: place + 1 }];
		})
		.slice(0, SHOWN_IN);
}

async function correctorsOf(db: App.Locals['otium']['db'], me: string): Promise<string[]> {
	return db('staff_role')
		.join('staff', 'staff.id', 'staff_role.staff_id')
		.whereIn('role', ['closing_officer', 'coordinator'])
		.whereNull('site_id')
		.whereNot('staff.id', me)
		.orderBy('staff.name')
		.distinct('staff.name')
		.pluck('staff.name');
}
