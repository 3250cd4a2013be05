import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { sameName } from '$core/access';
import { refusal } from '$core/sitting';
import { NOT_AT_THE_DOOR, orNotSavedYet, problem, readJson, refuse } from '$lib/server/http';
import { newReceipt } from '$lib/server/session';
import { act, formOf, loadSitting } from '$lib/server/sitting';
import type { RequestHandler } from './$types';

const Asked = z.object({ commandId: z.string().min(8).max(64), finishWord: z.string().max(80).default('') });

export const POST: RequestHandler = async ({ request, locals: { otium, device } }) => {
	if (!device) return problem(401, NOT_AT_THE_DOOR);
	const body = await readJson(request, Asked);
	if (!body.ok) return body.response;
	const one = await loadSitting(otium.db, device.sittingId, otium.now());
	if (one?.sitting.device?.epoch !== device.epoch) return refuse(refusal('second_device'));
	const wanted = one.session.rules.finishWord;
	const finishWord = wanted === null ? 'not_asked' : sameName(wanted, body.data.finishWord) ? 'right' : 'wrong';
	// Once time is up nothing can be answered any more: then whoever has to hand in must be able to, with blanks too.
	const isTimeUp = one.reckoning.remaining === 0;
	if (one.session.rules.movement.answerAll && one.sitting.state === 'working' && !isTimeUp) {
		const form = await formOf(otium.db, device.sittingId);
		const blanks = (form?.questions.length ?? 0) - one.answered;
		if (blanks > 0) {
			return problem(409, {
				code: 'blanks_left',
				message: `${blanks} ${blanks === 1 ? 'question is' : 'questions are'} still blank.`,
				instead: 'This paper is handed in when all are answered.'
			});
		}
	}
	return orNotSavedYet(async () => {
		const [outcome] = await act(otium, [
			{
				id: body.data.commandId,
				sittingId: device.sittingId,
				by: { role: 'candidate', id: one.candidate.id },
				body: { kind: 'hand_in', receipt: newReceipt(), reason: null },
				facts: { finishWord }
			}
		]);
		return outcome.ok ? json({ ok: true }) : refuse(outcome.refusal);
	});
};
