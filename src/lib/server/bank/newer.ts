import type { StaffMember } from '$core/access';
import type { Question } from '$core/paper';
import type { Query } from '../db';
import { digestOf } from './write-revision';
import { whereMayUse, writerOf } from './ownership';

/** As many as a paper has. */
const MOST = 500;

/**
 * How the bank stands to a paper's questions: which it has as they are in the paper or were before, and of which it has a
 * newer revision. What the paper's author has changed since is neither.
 */
export async function besideBank(
	db: Query,
	staff: StaffMember,
	questions: Question[]
): Promise<{ known: string[]; newer: Question[] }> {
	const asked = questions.slice(0, MOST);
	const rows: { id: string; content: string; digest: string }[] = await db('question')
		.modify((query) => whereMayUse(db, query, writerOf(staff)))
		.whereIn(
			'id',
			asked.map(({ id }) => id)
		)
		.select('id', 'content', 'digest');
	const bank = new Map(rows.map((row) => [row.id, row]));
	const digests = new Map(asked.map((question) => [question.id, digestOf(question)]));
	const said: { question_id: string; digest: string }[] = await db('question_revision')
		.whereIn(
			'question_id',
			rows.map(({ id }) => id)
		)
		.select('question_id', 'digest');
	const known = [
		...new Set(
			said.filter(({ question_id, digest }) => digests.get(question_id) === digest).map((row) => row.question_id)
		)
	];
	return {
		known,
		newer: known
			.map((id) => bank.get(id)!)
			.filter(({ id, digest }) => digests.get(id) !== digest)
			.map(({ content }) => JSON.parse(content))
	};
}
