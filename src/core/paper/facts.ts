import { keepsPlace } from './deal';
import { poolsOf, shareOf } from './pools';
import { pointsToReach, questionsOf, dealtCount, type Paper, type Question } from './question';
import { minutesNeeded } from './time-needed';

/** What can be told of a paper without showing a question of it. */
export type PaperSummary = {
	questions: number;
	/** Parts that draw from a pool: how many of how many, and whether their points are equal. */
	pools: { title: string; draw: number; of: number; equalPoints: boolean }[];
	/** Questions with a choice that points at others and so keeps its place. */
	keepPlace: number;
	/** The paper's own language first, then the others, each with how many of its questions are there in it. */
	languages: { tag: string; questions: number }[];
	suggestedMinutes: number;
};

/** Sums a paper up. */
export function summarise(paper: Paper): PaperSummary {
	const all = questionsOf(paper);
	const minutes = paper.parts.reduce((sum, part) => {
		return poolsOf(part).reduce((all, pool) => {
			const whole = pool.questions.reduce((minutes, question) => minutes + minutesNeeded(question), 0);
			return all + whole * shareOf(pool);
		}, sum);
	}, 0);
	return {
		questions: dealtCount(paper),
		pools: paper.parts
			.filter((part) => part.draw !== null)
			.flatMap(poolsOf)
			.map(({ name, draw, questions }) => ({
				title: name,
				draw,
				of: questions.length,
				equalPoints: new Set(questions.map(pointsToReach)).size <= 1
			})),
		keepPlace: all.filter(
			(question) => 'choices' in question && question.kind !== 'ordering' && question.choices.some(keepsPlace)
		).length,
		languages: languagesOf(paper.language ?? 'en', all),
		suggestedMinutes: Math.max(5, Math.ceil(minutes / 5) * 5)
	};
}

function languagesOf(own: string, questions: Question[]): PaperSummary['languages'] {
	const others = new Set(questions.flatMap((question) => Object.keys(question.inOther ?? {})));
	return [
		{ tag: own, questions: questions.length },
		...[...others].map((tag) => ({
			tag,
			questions: questions.filter((question) => question.inOther?.[tag]).length
		}))
	];
}
