import type { Query } from '../db';
import { withForms, type Counting } from './results-of';
import { scoresOf, type Scored } from './scores';

/** Sittings with their form, answers and marks, read and marked part by part: all at once would not fit into a small machine. */
export async function* markedSittings(
	db: Query,
	sittings: Counting[]
): AsyncGenerator<{ sitting: Counting; scored: Scored }> {
	for await (const part of withForms(db, sittings)) {
		const scores = await scoresOf(
			db,
			part.map((one) => ({ ...one, marking: one.rules.marking }))
		);
		for (const { form: _, ...sitting } of part) yield { sitting, scored: scores.get(sitting.sittingId)! };
	}
}
