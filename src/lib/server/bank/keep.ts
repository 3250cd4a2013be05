import { mayChange, mayUse, type Audience, type Writer } from '$core/bank';
import type { Question } from '$core/paper';
import type { Query } from '../db';
import { ownershipOf } from './ownership';
import { digestOf, writeRevision } from './write-revision';

export type Keeping = { at: number; writer: Writer; siteId: string | null; audience: Audience };
/** `ids`: those whose paper may say that it has them: a question that they may not use and that goes by the same id is not
 * touched, nor is one changed that they may only use. */
export type Kept = { added: number; changed: number; ids: string[] };

/**
 * Keeps questions in the bank as they are now. A new one belongs to the person who keeps it. Content that no revision has
 * yet becomes the latest revision; content that an earlier revision has changes nothing, because the bank may be ahead.
 */
export async function keepInBank(
	trx: Query,
	questions: Question[],
	{ at, writer, siteId, audience }: Keeping
): Promise<Kept> {
	const kept: Kept = { added: 0, changed: 0, ids: [] };
	const by = writer.id;
	for (const question of questions) {
		const { id } = question;
		const [fate, there] = await fateOf(trx, question, writer);
		if (fate === 'not_yours') continue;
		if (fate === 'new') {
			await writeRevision(trx, question, null, { at, by, whose: { site_id: siteId, audience, owner: by } });
			kept.added++;
		} else if (fate === 'changed') {
			await writeRevision(trx, question, there, { at, by, whose: {} });
			kept.changed++;
		}
		kept.ids.push(id);
	}
	return kept;
}

/** What keeping a question would come to: `same` is there already, or is only theirs to use. */
export type Fate = 'new' | 'changed' | 'same' | 'not_yours';

/** What keeping a question in the bank would come to, and where it stands there now. */
export async function fateOf(
	db: Query,
	question: Question,
	writer: Writer
): Promise<[Fate, Awaited<ReturnType<typeof ownershipOf>>]> {
	const there = await ownershipOf(db, question.id);
	if (!there) return ['new', null];
	if (!mayUse(there, writer)) return ['not_yours', there];
	const isChange = mayChange(there, writer) && !(await isKnown(db, question));
	return [isChange ? 'changed' : 'same', there];
}

/** Whether a revision has this content. */
async function isKnown(trx: Query, question: Question): Promise<boolean> {
	const same = await trx('question_revision')
		.where({ question_id: question.id, digest: digestOf(question) })
		.first('revision');
	return same !== undefined;
}

/** Notes that a frozen version has these questions. */
export async function noteUse(trx: Query, ids: string[], paperId: string): Promise<void> {
	for (const id of ids) await trx('question_use').insert({ question_id: id, paper_id: paperId });
}
