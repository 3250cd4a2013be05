import { clientFor } from '$core/access';
import { json } from '@sveltejs/kit';
import { NOT_AT_THE_DOOR, problem, refuse } from '$lib/server/http';
import { refusal } from '$core/sitting';
import { paperKey } from '$lib/server/identity';
import { paperVersion } from '$lib/server/paper';
import { standingAnswers } from '$lib/server/answers';
import { formOf, loadSitting } from '$lib/server/sitting';
import type { RequestHandler } from './$types';

/** The form and the answers that stand, for the bound device while its candidate may work. */
export const GET: RequestHandler = async ({ locals: { otium, device, client } }) => {
	if (!device) return problem(401, NOT_AT_THE_DOOR);
	const one = await loadSitting(otium.db, device.sittingId, otium.now());
	if (one?.sitting.device?.epoch !== device.epoch) return refuse(refusal('second_device'));
	if (one.sitting.state !== 'working') return refuse(refusal('not_from_this_state'));
	// Not a question leaves without a client that has proved itself, whoever's cookie asks.
	const proven = clientFor(one.session, client);
	if (proven === 'outdated') return refuse(refusal('client_outdated'));
	if (proven === 'missing') return refuse(refusal('client_unproven'));
	const form = await formOf(otium.db, device.sittingId);
	const answers = (await standingAnswers(otium.db, [device.sittingId])).get(device.sittingId) ?? [];
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
	const shown = new Set(form!.questions.map((question) => question.picture));
	const pictures = Object.fromEntries(Object.entries(all).filter(([name]) => shown.has(name)));
	return json({
		key: await paperKey(otium.db, device.sittingId, device.epoch),
		questions: form!.questions,
		pictures,
		formulaSheet,
		language,
		answers,
		lastSeq: (last?.seq as number | null) ?? 0
	});
};
