import { fail } from '$core/problem';
import type { Actor } from '$core/sitting';
import { addAnswers, givenIn } from '../answers';
import { transact, type Query } from '../db';
import type { Acting, House } from '../house';
import { appendToLogbook } from '../logbook';
import { formOf } from '../sitting';
import { keepHanded } from './handed';

type Needs = Acting & Pick<House, 'dataDir' | 'threads'>;

/**
 * Adds a scan of what somebody worked on paper to their answer to a question that takes files, once their work is over:
 * it is a revision like any other, in the chain of answers, and the log says whose hand it was.
 * @param asked the question, by the paper's own name
 * @throws ProblemError not_found, not_taken, handed_file, handed_enough
 */
export async function addScan(
	otium: Needs,
	by: Actor,
	sittingId: string,
	asked: string,
	file: { name: string; bytes: Uint8Array }
): Promise<void> {
	const { most, place } = await questionOf(otium.db, sittingId, asked);
	// Before anything is kept, and once more where it is added: it may be reopened in between.
	await sittingThatIsOver(otium.db, sittingId);
	const { id, name } = await keepHanded(otium, sittingId, asked, { ...file, byCode: false });
	const now = otium.now();
	const sessionId = await transact(otium.db, async (trx) => {
		const sitting = await sittingThatIsOver(trx, sittingId);
		const given = (await givenIn(trx, sittingId)).get(asked)?.value;
		const files = Array.isArray(given) ? given : [];
		if (files.includes(id)) return null;
		if (files.length >= most)
			fail('not_taken', {
				message: `The question takes ${most === 1 ? 'one file' : `${most} files`}.`,
				instead: 'Put what belongs together into one PDF.'
			});
		await addAnswers(trx, sittingId, [{ questionId: asked, value: [...files, id] }], now);
		await appendToLogbook(trx, [
			{ at: now, by, kind: 'scan_added', sessionId: sitting.session_id, sittingId, body: { question: place + 1, name } }
		]);
		return sitting.session_id;
	});
	if (sessionId !== null) otium.hub.answered([{ sittingId, sessionId }]);
}

async function sittingThatIsOver(db: Query, sittingId: string): Promise<{ session_id: string }> {
	const sitting: { session_id: string; state: string } = await db('sitting').where({ id: sittingId }).first();
	if (!['handed_in', 'time_up'].includes(sitting.state))
		fail('not_taken', {
			message: 'Their work is not over.',
			instead: 'Until then they hand files over from their device, or from a phone.'
		});
	return sitting;
}

async function questionOf(db: Query, sittingId: string, asked: string): Promise<{ most: number; place: number }> {
	const questions = (await formOf(db, sittingId))?.questions ?? [];
	const place = questions.findIndex(({ id }) => id === asked);
	if (place < 0) fail('not_found');
	if (questions[place].kind !== 'upload')
		fail('not_taken', { message: 'This question takes no files.', instead: 'Only one that asks for them does.' });
	return { most: questions[place].most ?? 1, place };
}
