import { fail } from '$core/problem';
import type { House } from '../house';
import { loadSitting, questionsSent } from '../sitting';

/**
 * A sitting that is being worked on, with a question of it that takes files and may be seen now.
 * @param asked the question, by the paper's own name or as the device knows it
 * @returns `questionId`: the paper's own name; `question`: as the device knows it
 * @throws ProblemError takes_no_files
 */
export async function takesFiles(otium: Pick<House, 'db' | 'now'>, sittingId: string, asked: string) {
	const one = await loadSitting(otium.db, sittingId, otium.now());
	if (one?.sitting.state !== 'working') fail('takes_no_files');
	const { ids, questions } = await questionsSent(otium.db, one);
	const questionId = ids.questionNamed(asked);
	const question = questions.find(({ id, kind }) => kind === 'upload' && id === ids.nameOf(questionId));
	if (!question) fail('takes_no_files');
	return { one, question, questionId };
}
