import { keepsPlace } from './deal';
import { formsOf, type PaperForm } from './paper-forms';
import { poolsOf, sharesOf } from './pools';
import { questionsOf, dealtCount, sumOfPoints, type Paper, type Question } from './question';
import { minutesNeeded } from './time-needed';

/** What can be told of a paper without showing a question of it. */
export type PaperSummary = {
	questions: number;
	/** Of which each candidate gets one; none: all are dealt from the whole paper. */
	forms: { name: PaperForm['name']; questions: number; points: number }[];
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
	const forms = formsOf(paper);
	const minutes = sharesOf(paper).reduce((sum, { question, share }) => sum + share * minutesNeeded(question), 0);
	return {
		questions: dealtCount(paper),
		forms: forms.map(({ name, questions }) => ({ name, questions: questions.length, points: sumOfPoints(questions) })),
		pools: (forms.length > 0 ? [] : paper.parts)
			.filter((part) => part.draw !== null)
			.flatMap(poolsOf)
			.map(({ name, draw, units }) => ({
				title: name,
				draw,
				of: units.length,
				equalPoints: new Set(units.map(sumOfPoints)).size <= 1
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
