import type { Choice, Question } from './question';

/** What is right, as an author reads it: `new and full moon`, `4.8 m ± 1 %`, `port or larboard`. Empty: nothing is told yet. */
export function keyInWords(question: Question): string {
	switch (question.kind) {
		case 'true_false':
			return question.answer ? 'True' : 'False';
		case 'single':
			return textOf(question.choices, question.answer);
		case 'multiple':
			return question.answer.map((id) => textOf(question.choices, id)).join(', ');
		case 'ordering':
			return question.answer.map((id) => textOf(question.choices, id)).join(' → ');
		case 'matching':
			return question.items
				.map(({ id, text }) => `${text} → ${textOf(question.matches, question.answer[id])}`)
				.join('; ');
		case 'fill_in':
			return question.gaps.map(({ id, accepted }) => `${id}: ${accepted.filter(Boolean).join(' or ')}`).join('; ');
		case 'short':
			return question.accepted.filter(Boolean).join(' or ');
		case 'numeric':
		case 'calculated': {
			const { kind, amount } = question.tolerance;
			const within =
				amount === 0 ? '' : ` ± ${kind === 'relative' ? `${Number((amount * 100).toFixed(6))} %` : amount}`;
			const value = question.kind === 'numeric' ? shortened(question.answer) : question.formula;
			return value === '' ? '' : `${value}${question.unit ? ` ${question.unit}` : ''}${within}`;
		}
		case 'essay':
		case 'upload':
			return '';
	}
}

/** A number as it is written: a reckoned one with as many digits as anybody gives. */
function shortened(value: number): string {
	return String(Number(value.toPrecision(8)));
}

function textOf(choices: Choice[], id: string | undefined): string {
	return choices.find((choice) => choice.id === id)?.text ?? '?';
}
