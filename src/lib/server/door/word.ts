import { refusal, type Outcome, type Refusal } from '$core/sitting';
import type { House } from '../house';
import { noteRefusal } from './refusals';

type Needs = Pick<House, 'db' | 'now' | 'hub' | 'limits'>;
type Words = 'start' | 'finish';
type Worded = Outcome | { ok: false; refusal: Refusal; waitSeconds: number };

/**
 * Does what a start or finish word opens, and limits how often it may be guessed: some tries, then growing waits, and the
 * proctor sees it and can let them try again.
 */
export async function withWord(
	otium: Needs,
	sittingId: string,
	which: Words,
	typed: string,
	address: string,
	work: () => Promise<Outcome>
): Promise<Worded> {
	// Nothing typed is no guess: most papers ask for no word.
	if (typed.trim() === '') return work();
	const tried = await otium.limits.consume('word', `${sittingId} ${which}`, address, otium.now());
	if (tried.wait > 0) return { ok: false, refusal: refusal('too_many_tries'), waitSeconds: tried.wait };
	const outcome = await work();
	if (outcome.ok) await otium.limits.succeeded(tried);
	else if (outcome.refusal.code !== `${which}_word_wrong`) await otium.limits.refund(tried);
	else if (tried.until !== null) {
		const row = await otium.db('sitting').where({ id: sittingId }).first('session_id', 'candidate_id');
		await noteRefusal(otium, {
			sessionId: row.session_id,
			code: 'word_guessed',
			deviceName: 'Their own',
			candidateId: row.candidate_id,
			sittingId,
			waitsUntil: tried.until,
			limited: [tried.target]
		});
	}
	return outcome;
}
