import { z } from 'zod';
import { sameName } from '$core/access';
import { fail } from '$core/problem';
import { refusal } from '$core/sitting';
import { withWord } from '$lib/server/door';
import { boundDevice, orRefuse, refuse, route } from '$lib/server/http';
import { newReceipt } from '$lib/server/session';
import { act, formOf, loadSitting } from '$lib/server/sitting';

const Asked = z.object({ commandId: z.string().min(8).max(64), finishWord: z.string().max(80).default('') });

export const POST = route(boundDevice, Asked, async ({ otium, device, body, locals }) => {
	await otium.quotas.take('commands', device.sittingId);
	const one = await loadSitting(otium.db, device.sittingId, otium.now());
	if (!one) refuse(refusal('gone'));
	const wanted = one.session.rules.finishWord;
	const finishWord = wanted === null ? 'not_asked' : sameName(wanted, body.finishWord) ? 'right' : 'wrong';
	// Once time is up nothing can be answered any more: then whoever has to hand in must be able to, with blanks too.
	const isTimeUp = one.reckoning.remaining === 0;
	if (one.session.rules.movement.answerAll && one.sitting.state === 'working' && !isTimeUp) {
		const form = await formOf(otium.db, device.sittingId);
		const blanks = (form?.questions.length ?? 0) - one.answered;
		if (blanks > 0)
			fail('blanks_left', { message: `${blanks} ${blanks === 1 ? 'question is' : 'questions are'} still blank.` });
	}
	const handIn = async () => {
		const [outcome] = await act(otium, [
			{
				id: body.commandId,
				sittingId: device.sittingId,
				by: { role: 'candidate', id: one.candidate.id },
				body: { kind: 'hand_in', receipt: newReceipt(), reason: null },
				facts: { finishWord }
			}
		]);
		return outcome;
	};
	orRefuse(await withWord(otium, device.sittingId, 'finish', body.finishWord, locals.address, handIn));
	return { ok: true };
});
