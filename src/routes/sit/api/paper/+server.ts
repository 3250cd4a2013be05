import { boundDevice, mustBeProven, refuse, route } from '$lib/server/http';
import { refusal } from '$core/sitting';
import { paperKey } from '$lib/server/identity';
import { paperVersion } from '$lib/server/paper';
import { standingAnswers } from '$lib/server/answers';
import { formOf, loadSitting, OwnIds } from '$lib/server/sitting';

/** The form and the answers that stand, for the bound device while its candidate may work. */
export const GET = route(boundDevice, async ({ otium, device, locals }) => {
	const one = await loadSitting(otium.db, device.sittingId, otium.now());
	if (one?.sitting.state !== 'working') refuse(refusal('not_from_this_state'));
	// Not a question leaves without a client that has proved itself, whoever's cookie asks.
	mustBeProven(one.session, locals.client);
	const form = (await formOf(otium.db, device.sittingId))!;
	const ids = new OwnIds(otium.db, device.sittingId, form);
	const answers = (await standingAnswers(otium.db, [device.sittingId])).get(device.sittingId) ?? [];
	const { hints } = one.session.rules.tools;
	const last = await otium
		.db('answer')
		.where({ sitting_id: device.sittingId, epoch: device.epoch })
		.max('seq as seq')
		.first();
	const {
		pictures: all = {},
		formulaSheet = [],
		language = 'en'
	} = (await paperVersion(otium.db, one.paperId)).content;
	const shown = new Set(form.questions.map((question) => question.picture));
	const pictures = Object.fromEntries(Object.entries(all).filter(([name]) => shown.has(name)));
	return {
		key: await paperKey(otium.db, device.sittingId, device.epoch),
		// A hint that the rules do not allow does not leave the house.
		questions: hints ? ids.shown : ids.shown.map(({ hint: _, ...question }) => question),
		pictures,
		formulaSheet,
		language,
		answers: answers.map((answer) => ids.toDevice(answer)),
		lastSeq: (last?.seq as number | null) ?? 0
	};
});
