import { createHash } from 'node:crypto';
import { foldName } from '$core/access';
import { mayChange, mayUse, topicPath, type Audience, type Writer } from '$core/bank';
import { saidIn, type Question } from '$core/paper';
import { canonicalJson, type Query } from '../db';
import { ownershipOf } from './ownership';

export type Keeping = { at: number; writer: Writer; siteId: string | null; audience: Audience };
/** `ids`: those whose paper may say that it has them: a question that they may not use and that goes by the same id is not
 * touched, nor is one changed that they may only use. */
export type Kept = { added: number; changed: number; ids: string[] };

/** What lists and searches need of a question, beside its content. */
export function columnsOf(question: Question) {
	return {
		kind: question.kind,
		topic: topicPath(question.topic),
		difficulty: question.difficulty ?? null,
		points: question.points,
		languages: `,${Object.keys(question.inOther ?? {}).join(',')},`,
		said: folded(saidIn(question))
	};
}

/** A text as it is searched: word by word, without case and accents. */
export function folded(text: string): string {
	return text.split(/\s+/).map(foldName).filter(Boolean).join(' ');
}

export function digestOf(content: string): string {
	return createHash('sha256').update(content).digest('hex');
}

/**
 * Keeps questions in the bank as they are now. A new one belongs to the person who keeps it. Content that no revision has
 * yet becomes the latest revision; content that an earlier revision has changes nothing, because the bank may be ahead.
 */
export async function keepInBank(trx: Query, questions: Question[], keeping: Keeping): Promise<Kept> {
	const kept: Kept = { added: 0, changed: 0, ids: [] };
	for (const question of questions) {
		const content = canonicalJson(question);
		const digest = digestOf(content);
		const id = question.id;
		const there = await ownershipOf(trx, id);
		if (there && !mayUse(there, keeping.writer)) continue;
		kept.ids.push(id);
		if (there && !mayChange(there, keeping.writer)) continue;
		if (there && (await trx('question_revision').where({ question_id: id, digest }).first('revision'))) continue;
		const revision = (there?.revision ?? 0) + 1;
		const now = {
			revision,
			content,
			digest,
			...columnsOf(question),
			changed_at: keeping.at,
			changed_by: keeping.writer.id
		};
		if (there) await trx('question').where({ id }).update(now);
		else {
			const { siteId: site_id, audience, writer } = keeping;
			await trx('question').insert({ id, site_id, audience, owner: writer.id, ...now });
		}
		await trx('question_revision').insert({
			question_id: id,
			revision,
			content,
			digest,
			at: keeping.at,
			by: keeping.writer.id
		});
		if (there) kept.changed++;
		else kept.added++;
	}
	return kept;
}

/** Notes that a frozen version has these questions. */
export async function noteUse(trx: Query, ids: string[], paperId: string): Promise<void> {
	for (const id of ids) await trx('question_use').insert({ question_id: id, paper_id: paperId });
}
