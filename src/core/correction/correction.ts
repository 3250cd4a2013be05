import { answerInWords } from '../review';
import { readNumber, type Correction } from '../marking';
import { deal, fitsQuestion, isBlank, isMarkedByHand, type FormQuestion, type Question } from '../paper';

/** Why this can't be done to this question; null: it can. The sentence says what would work. */
export function correctionFault(question: Question, correction: Correction): string | null {
	switch (correction.kind) {
		case 'key':
		case 'accept':
			return answerFault(question, correction.answer);
		case 'points':
			if (!(correction.points > 0 && correction.points <= 1_000))
				return 'A question is worth more than 0 and at most 1,000 points. To make it worth nothing, leave it out.';
			return null;
		default:
			return null;
	}
}

function answerFault(question: Question, answer: Extract<Correction, { kind: 'key' }>['answer']): string | null {
	if (isMarkedByHand(question)) return 'A person marks this question, so it has no key. Change the marks instead.';
	if (question.kind === 'calculated')
		return 'Each candidate had other numbers in this question. Count it for all, or leave it out.';
	if (isBlank(answer) || !fitsQuestion(asShown(question), answer)) return 'Choose an answer that the question has.';
	if (question.kind === 'numeric' && readNumber(String(answer)).length !== 1)
		return 'Enter a number that can be read in one way only, such as 3.5 or 1200.';
	if (question.kind === 'matching' || question.kind === 'fill_in') {
		const parts = question.kind === 'matching' ? question.items : question.gaps;
		const given = answer as Record<string, string>;
		if (parts.some(({ id }) => !given[id]?.trim())) return 'Give an answer for every part of the question.';
	}
	if (question.kind === 'ordering' && (answer as string[]).length !== question.choices.length)
		return 'Put all the choices in order.';
	return null;
}

/** A question as candidates see it, its choices in the paper’s order. */
export function asShown(question: Question): FormQuestion {
	const paper = { title: '', parts: [{ title: '', questions: [question], draw: null }] };
	return deal(paper, { questionsInOwnOrder: false, choicesInOwnOrder: false }, 1).questions[0];
}

/** "The right answer is south of it": what is done to a question, in a sentence. */
export function correctionInWords(question: Question, correction: Correction): string {
	switch (correction.kind) {
		case 'key':
			return `The right answer is now “${answerInWords(asShown(question), correction.answer)}”.`;
		case 'accept':
			return `“${answerInWords(asShown(question), correction.answer)}” is right as well.`;
		case 'for_all':
			return 'Everyone who had it gets its points.';
		case 'leave_out':
			return 'It is left out: no points, and none to reach.';
		case 'points':
			return `It is worth ${correction.points} ${correction.points === 1 ? 'point' : 'points'}, instead of ${question.points}.`;
		case 'keep':
			return 'It stays as it is.';
		case 'restore':
			return 'It is marked as the paper says; earlier corrections no longer count.';
	}
}
