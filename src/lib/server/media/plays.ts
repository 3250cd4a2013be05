import type { FormQuestion, Played } from '$core/paper';
import { transact, type Query } from '../db';

/** How often each file that counts was played. */
export async function playedIn(db: Query, sittingId: string): Promise<Played[]> {
	return db('sitting_play').where({ sitting_id: sittingId }).select('of', 'place', 'times');
}

/** Notes how often something was played by now. Told twice, or late, or by two devices, the larger number stands. */
export async function notePlayed(db: Query, sittingId: string, { of, place, times }: Played): Promise<void> {
	await transact(db, async (trx) => {
		const row = { sitting_id: sittingId, of, place };
		const known = await trx('sitting_play').where(row).first('times');
		if (!known) await trx('sitting_play').insert({ ...row, times });
		else if (known.times < times) await trx('sitting_play').where(row).update({ times });
	});
}

/** Whether this names a file that may be played only so often; nothing else is counted. */
export function isCounted(questions: FormQuestion[], { of, place }: Pick<Played, 'of' | 'place'>): boolean {
	return questions.some(({ id, media, stimulus }) => {
		const medium = id === of ? media?.[place] : stimulus?.id === of ? stimulus.media?.[place] : undefined;
		return medium?.plays !== undefined;
	});
}
