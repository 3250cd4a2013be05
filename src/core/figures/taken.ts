import { foldName } from '../access';
import { isBlank, type AnswerValue, type Question } from '../paper';

/** An answer that was given: how often, and how often in each third, the best first. */
export type Taken = {
	/** A choice’s id, `true` or `false`; of typed answers the text. */
	value: string;
	taken: number;
	thirds: [number, number, number];
	isRight: boolean;
};

/** Of typed answers the most frequent are listed. */
const MOST_TYPED = 8;

/**
 * Which answers were given. Of choices each is listed, also those that nobody took; of several right ones each counts for
 * itself.
 * @param ranked those who had the question, the best of all else first
 */
export function answersTaken(question: Question, ranked: { answer: AnswerValue; isRight: boolean }[]): Taken[] {
	const third = (place: number) => Math.min(2, Math.floor((place * 3) / ranked.length)) as 0 | 1 | 2;
	const found = new Map<string, Taken>(
		offered(question).map(({ value, isRight }) => [value, { value, taken: 0, thirds: [0, 0, 0], isRight }])
	);
	const isOffered = found.size > 0;
	ranked.forEach(({ answer, isRight }, place) => {
		if (isBlank(answer)) return;
		const given = isOffered ? [answer].flat().map(String) : typed(question, answer);
		for (const value of given) {
			const one = found.get(value) ?? { value, taken: 0, thirds: [0, 0, 0], isRight };
			// What a correction accepts besides is right, too, although the key does not name it.
			if (isOffered && question.kind !== 'multiple') one.isRight = isRight;
			one.taken++;
			one.thirds[third(place)]++;
			found.set(value, one);
		}
	});
	if (isOffered) return [...found.values()];
	return [...found.values()].sort((a, b) => b.taken - a.taken).slice(0, MOST_TYPED);
}

function offered(question: Question): { value: string; isRight: boolean }[] {
	switch (question.kind) {
		case 'true_false':
			return [true, false].map((value) => ({ value: String(value), isRight: value === question.answer }));
		case 'single':
			return question.choices.map(({ id }) => ({ value: id, isRight: id === question.answer }));
		case 'multiple':
			return question.choices.map(({ id }) => ({ value: id, isRight: question.answer.includes(id) }));
		default:
			return [];
	}
}

/** Spellings that differ in case and accents alone are one. Only short answers are listed. */
function typed(question: Question, answer: AnswerValue): string[] {
	if (question.kind === 'short') return [foldName(String(answer))];
	if (question.kind === 'numeric') return [String(answer).trim()];
	return [];
}
