import { fail } from '$core/problem';
import type { House } from '../house';
import { loadSitting, questionsSent } from '../sitting';

/**
 * A sitting that is being worked on, with a question of it that takes files and may be seen now.
 * @param asked the question, as the device knows it, or as a note of ours has it
 * @returns `questionId`: the paper's own name; `question`: as the device knows it
 * @throws ProblemError takes_no_files
 */
export async function takesFiles(
	otium: Pick<House, 'db' | 'now'>,
	sittingId: string,
	asked: { onDevice: string } | { inPaper: string }
) {
	const one = await loadSitting(otium.db, sittingId, otium.now());
	if (one?.sitting.state !== 'working') fail('takes_no_files');
	const { ids, questions } = await questionsSent(otium.db, one);
	const questionId = 'inPaper' in asked ? asked.inPaper : ids.questionNamed(asked.onDevice);
	const name = questionId === null ? null : ids.nameOf(questionId);
	const question = questions.find(({ id, kind }) => kind === 'upload' && id === name);
	if (!question || questionId === null) fail('takes_no_files');
	return { one, question, questionId };
}
