import { boundDevice, mustBeProven, refuse, route } from '$lib/server/http';
import { refusal } from '$core/sitting';
import { paperKey } from '$lib/server/identity';
import { paperVersion } from '$lib/server/paper';
import { playedIn } from '$lib/server/media';
import { standingAnswers } from '$lib/server/answers';
import { drawnFormulas } from '$lib/server/formulas';
import { loadSitting, mayHavePaper, showQuestions } from '$lib/server/sitting';

/**
 * The paper and the answers that stand, for the bound device while its candidate may work. `order` names every question;
 * `questions` are those that it may see now.
 */
export const GET = route(boundDevice, async ({ otium, device, locals, url }) => {
	const one = await loadSitting(otium.db, device.sittingId, otium.now());
	if (one?.sitting.state !== 'working') refuse(refusal('not_from_this_state'));
	// Not a question leaves without a client that has proved itself, whoever's cookie asks.
	mustBeProven(one.session, locals.client);
	const view = url.searchParams.get('view') ?? '';
	if (!(await mayHavePaper(otium, one, view.slice(0, 64)))) refuse(refusal('came_back'));
	const { ids, form, ...sent } = await showQuestions(otium, one);
	const answers = (await standingAnswers(otium.db, [device.sittingId])).get(device.sittingId) ?? [];
	const last = await otium
		.db('answer')
		.where({ sitting_id: device.sittingId, epoch: device.epoch })
		.max('seq as seq')
		.first();
	const { formulaSheet = [], material = [], language = 'en' } = (await paperVersion(otium.db, one.paperId)).content;
	return {
		key: await paperKey(otium.db, device.sittingId, device.epoch),
		order: form.questions.map((question) => ids.nameOf(question.id)),
		languages: [...new Set(form.questions.flatMap((question) => Object.keys(question.inOther ?? {})))],
		...sent,
		formulaSheet,
		...(await drawnFormulas(otium, [sent.questions, formulaSheet, material], language)),
		material,
		language,
		played: await playedIn(otium.db, device.sittingId),
		answers: answers.map((answer) => ids.toDevice(answer)),
		lastSeq: (last?.seq as number | null) ?? 0
	};
});
