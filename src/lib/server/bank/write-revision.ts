import { createHash } from 'node:crypto';
import { foldName } from '$core/access';
import { topicPath } from '$core/bank';
import { saidIn, type Question } from '$core/paper';
import { canonicalJson, type Query } from '../db';

/** Where a question of the bank stands: its latest revision, and the digest of its content. */
export type Latest = { revision: number; digest: string };
/** What of its row is not its content. */
type Whose = { site_id?: string | null; owner?: string | null; audience?: string; retired_at?: number | null };

export function digestOf(question: Question): string {
	return createHash('sha256').update(canonicalJson(question)).digest('hex');
}

/** A text as it is searched: word by word, without case and accents. */
export function folded(text: string): string {
	return text.split(/\s+/).map(foldName).filter(Boolean).join(' ');
}

/**
 * Writes a question into the bank as it is now, with a revision of its own where its content is not that of the latest.
 * @param latest null: it is new
 * @returns its revision
 */
export async function writeRevision(
	trx: Query,
	question: Question,
	latest: Latest | null,
	{ at, by, whose }: { at: number; by: string; whose: Whose }
): Promise<number> {
	const { id } = question;
	const content = canonicalJson(question);
	const digest = digestOf(question);
	const isSame = latest?.digest === digest;
	const revision = (latest?.revision ?? 0) + (isSame ? 0 : 1);
	const row = { ...whose, revision, content, digest, ...columnsOf(question), changed_at: at, changed_by: by };
	if (latest) await trx('question').where({ id }).update(row);
	else await trx('question').insert({ id, ...row });
	if (!isSame) await trx('question_revision').insert({ question_id: id, revision, content, digest, at, by });
	return revision;
}

/** What lists and searches need of a question, beside its content. */
function columnsOf(question: Question) {
	return {
		kind: question.kind,
		topic: topicPath(question.topic),
		difficulty: question.difficulty ?? null,
		points: question.points,
		languages: `,${Object.keys(question.inOther ?? {}).join(',')},`,
		said: folded(saidIn(question))
	};
}
