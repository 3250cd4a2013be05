import type { CalculatorKind } from '../calculator';
import { questionsOf, type FormQuestion, type Paper } from './question';

export type Allowed = 'none' | CalculatorKind;
/** What a question can lessen it to. */
export type Lesser = Exclude<Allowed, 'scientific'>;
const ORDER: readonly Allowed[] = ['none', 'basic', 'scientific'];

/**
 * The calculator beside questions that are seen together: no question gives more than the session does, and the least
 * that one of them allows holds for all. Who was granted one has it beside every question.
 */
export function calculatorFor(
	session: Allowed,
	questions: readonly Pick<FormQuestion, 'calculator'>[],
	isGranted: boolean
): Allowed {
	if (isGranted) return session;
	const all = [session, ...questions.flatMap(({ calculator }) => calculator ?? [])];
	return all.reduce((least, one) => (ORDER.indexOf(one) < ORDER.indexOf(least) ? one : least));
}

/** Whether some questions of a paper allow less than the session may. */
export function limitsCalculator(paper: Paper): boolean {
	return questionsOf(paper).some(({ calculator }) => calculator !== undefined);
}
