import { fullName } from '$core/names';
import type { Query } from '../db';
import { ownNote } from '../identity';
import { postLetter } from '../mail';

/** Whether results of a paper have been released, from now or from a time to come. */
export async function isReleased(db: Query, administrationId: string, paperId: string): Promise<boolean> {
	const row = await db('release')
		.where({ administration_id: administrationId, paper_id: paperId, called_back_at: null })
		.first('id');
	return row !== undefined;
}

type Row = { id: string; given: string; family: string; email: string };

/** Where results of a paper are out by now: at which address candidates read theirs. null: they are not. */
async function releasedAt(db: Query, administrationId: string, paperId: string, now: number): Promise<string | null> {
	const row: { body: string } | undefined = await db('release')
		.where({ administration_id: administrationId, paper_id: paperId })
		.whereNull('called_back_at')
		.where('from_at', '<=', now)
		.first('body');
	return row ? (JSON.parse(row.body) as { origin: string }).origin : null;
}

/** Those who are told that their result has changed: it was out, and they have an address. */
export async function toBeTold(
	db: Query,
	{ administrationId, paperId }: { administrationId: string; paperId: string },
	sittingIds: string[],
	now: number
): Promise<{ people: Row[]; origin: string }> {
	const origin = await releasedAt(db, administrationId, paperId, now);
	if (origin === null) return { people: [], origin: '' };
	const people: Row[] = await db('sitting')
		.join('candidate', 'candidate.id', 'sitting.candidate_id')
		.whereIn('sitting.id', sittingIds)
		.whereNotNull('email')
		.distinct('candidate.id as id', 'given', 'family', 'email');
	return { people, origin };
}

/** Writes to them, within the transaction that changes their results. */
export async function tellChanged(
	trx: Query,
	paper: string,
	{ people, origin }: { people: Row[]; origin: string },
	now: number
): Promise<void> {
	for (const one of people)
		await postLetter(
			trx,
			{
				kind: 'results',
				name: fullName(one),
				address: one.email,
				subject: `Your result has changed: ${paper}`,
				body: `Dear ${fullName(one)},\n\na question of ${paper} was corrected after the exam, and your result has changed. Read it here:\n\n${origin}/mine/${await ownNote(trx, one.id, now)}\n`
			},
			now
		);
}
