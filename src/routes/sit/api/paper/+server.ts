import { json } from '@sveltejs/kit';
import { NOT_AT_THE_DOOR, problem, refuse } from '$lib/server/http';
import { refusal } from '$core/sitting';
import { standingAnswers } from '$lib/server/answers';
import { formOf, loadSitting } from '$lib/server/sitting';
import type { RequestHandler } from './$types';

/** The form and the answers that stand, for the bound device while its candidate may work. */
export const GET: RequestHandler = async ({ locals: { otium, device } }) => {
	if (!device) return problem(401, NOT_AT_THE_DOOR);
	const one = await loadSitting(otium.db, device.sittingId, otium.now());
	if (one?.sitting.device?.epoch !== device.epoch) return refuse(refusal('second_device'));
	if (one.sitting.state !== 'working') return refuse(refusal('not_from_this_state'));
	const form = await formOf(otium.db, device.sittingId);
	const answers = (await standingAnswers(otium.db, [device.sittingId])).get(device.sittingId) ?? [];
	const last = await otium
		.db('answer')
		.where({ sitting_id: device.sittingId, epoch: device.epoch })
		.max('seq as seq')
		.first();
	return json({ questions: form!.questions, answers, lastSeq: (last?.seq as number | null) ?? 0 });
};
