import { countingScore, type Reached } from '$core/attempts';
import { fullName } from '$core/names';
import { questionsOf, type Question } from '$core/paper';
import { resultOf, type Result } from '$core/results';
import { groupBy, type Query } from '../db';
import { countingSittings, scoresOf, withForms, type Counting, type Scored } from '../marking';
import { paperVersion } from '../paper';
import { standingValidity, type StandingValidity } from '../records';

/** A result with whose it is and what it is worth. */
export type ResultLine = {
	sitting: Counting;
	name: string;
	result: Result;
	scored: Scored;
	validity: StandingValidity | null;
	/** What counts of all attempts, by the rule of the last; null on attempts before it. */
	counted: Reached | null;
};

/** Results, one for each sitting that counts. @param narrow which: by administration, paper, session, site or candidate */
export async function resultLines(
	db: Query,
	narrow: (query: ReturnType<Query['queryBuilder']>) => void
): Promise<ResultLine[]> {
	const sittings = await countingSittings(db, narrow);
	const validity = await standingValidity(
		db,
		sittings.map(({ sittingId }) => sittingId)
	);
	const questions = new Map<string, Map<string, Question>>();
	const lines: ResultLine[] = [];
	for await (const part of withForms(db, sittings)) {
		const scores = await scoresOf(
			db,
			part.map((one) => ({ ...one, marking: one.rules.marking }))
		);
		for (const sitting of part) {
			const { paperId } = sitting;
			if (!questions.has(paperId)) {
				const all = questionsOf((await paperVersion(db, paperId)).content);
				questions.set(paperId, new Map(all.map((question) => [question.id, question])));
			}
			const scored = scores.get(sitting.sittingId)!;
			lines.push({
				sitting,
				name: fullName(sitting),
				result: resultOf(scored.score, sitting.rules.result, questions.get(paperId)!),
				scored,
				validity: validity.get(sitting.sittingId) ?? null,
				counted: null
			});
		}
	}
	for (const attempts of groupBy(
		lines,
		({ sitting }) => `${sitting.candidateId} ${sitting.paperId} ${sitting.administrationId}`
	).values()) {
		const inOrder = attempts.sort((a, b) => a.sitting.attempt - b.sitting.attempt);
		const last = inOrder[inOrder.length - 1];
		// What is void counts as no attempt.
		const reached = inOrder.filter((one) => one.validity?.verdict !== 'void').map(({ result }) => result);
		last.counted = countingScore(last.sitting.rules.attempts.counts, reached);
	}
	return lines;
}
