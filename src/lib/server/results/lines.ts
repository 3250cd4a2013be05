import { countingScore, type Reached } from '$core/attempts';
import { groupBy } from '$core/group-by';
import type { Mark } from '$core/marking';
import { fullName } from '$core/names';
import { questionsOf, type Question } from '$core/paper';
import { resultOf, verdictOf, type Result } from '$core/results';
import type { Query } from '../db';
import { countingSittings, markedSittings, type Counting } from '../marking';
import { paperVersion } from '../paper';
import { standingValidity, type StandingValidity } from '../records';

/** A result with whose it is and what it is worth. */
export type ResultLine = {
	sitting: Counting;
	name: string;
	result: Result;
	marks: Mark[];
	validity: StandingValidity | null;
	/** What counts of all attempts, by the rule of the last; null on attempts before it. */
	counted: Reached | null;
};

/** Narrows to some sittings: by administration, paper, session, site or candidate. */
export type Narrow = Parameters<typeof countingSittings>[1];

/** Results, one for each sitting that counts. */
export async function resultLines(db: Query, narrow: Narrow): Promise<ResultLine[]> {
	const questions = new Map<string, Map<string, Question>>();
	const lines: ResultLine[] = [];
	for await (const { sitting, scored } of markedSittings(db, await countingSittings(db, narrow))) {
		const { paperId } = sitting;
		if (!questions.has(paperId)) {
			const all = questionsOf((await paperVersion(db, paperId)).content);
			questions.set(paperId, new Map(all.map((question) => [question.id, question])));
		}
		lines.push({
			sitting,
			name: fullName(sitting),
			result: resultOf(scored.score, sitting.rules.result, questions.get(paperId)!),
			marks: scored.score.marks,
			validity: null,
			counted: null
		});
	}
	const validity = await standingValidity(
		db,
		lines.map(({ sitting }) => sitting.sittingId)
	);
	for (const line of lines) line.validity = validity.get(line.sitting.sittingId) ?? null;
	for (const attempts of groupBy(
		lines,
		({ sitting }) => `${sitting.candidateId} ${sitting.paperId} ${sitting.administrationId}`
	).values()) {
		const inOrder = attempts.sort((a, b) => a.sitting.attempt - b.sitting.attempt);
		const last = inOrder[inOrder.length - 1];
		// What is void counts as no attempt.
		const reached = inOrder.filter((one) => one.validity?.verdict !== 'void').map(({ result }) => result);
		last.counted = countingScore(last.sitting.rules.attempts.counts, reached);
		// Passed is who has passed with what counts: one verdict of all attempts, told with the last.
		for (const one of inOrder)
			one.result = { ...one.result, ...verdictOf(one === last ? last.counted : null, last.sitting.rules.result) };
	}
	return lines;
}
