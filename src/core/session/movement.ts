import type { MovementRules } from './rules';

/** Questions on a page where nobody may go back; null: they may. With everything on one page there is nothing to go back to. */
export function forwardBy({ shown, perPage, goingBack }: MovementRules): number | null {
	if (goingBack || shown === 'all') return null;
	return shown === 'one' ? 1 : perPage;
}

/** One page of a paper; all counted from 0. */
export type Page = {
	perPage: number;
	number: number;
	/** The questions of the page: from, and up to but not with. */
	from: number;
	to: number;
	isFirst: boolean;
	isLast: boolean;
};

/** The page on which a question stands. */
export function pageAt(rules: MovementRules, questions: number, at: number): Page {
	const perPage = { one: 1, pages: rules.perPage, all: Math.max(1, questions) }[rules.shown];
	const number = Math.floor(at / perPage);
	const from = number * perPage;
	const to = Math.min(questions, from + perPage);
	return { perPage, number, from, to, isFirst: number === 0, isLast: to >= questions };
}

/**
 * The questions that a device may be sent now: all where one may go back, else only the page that has been reached.
 * Reaching a page gives up those before it, so that nobody sees ahead without losing what lies between.
 * @param touched places in the form that an answer or a turned page has reached, from 0
 */
export function mayBeSent(
	rules: MovementRules,
	questions: number,
	touched: readonly number[]
): Pick<Page, 'from' | 'to'> {
	if (forwardBy(rules) === null) return { from: 0, to: questions };
	const furthest = touched.reduce((most, place) => Math.max(most, place), 0);
	return pageAt(rules, questions, Math.min(furthest, Math.max(0, questions - 1)));
}

type Answered = (index: number) => boolean;

/** Whether the next page may be seen, by the rule that each question must be answered first. */
export function mayGoOn(rules: MovementRules, { from, to }: Page, isAnswered: Answered): boolean {
	return !rules.answerToGoOn || every(from, to, isAnswered);
}

/**
 * Whether somebody may turn one page on, or back. Who may only read any more is not held up by what is blank; but where
 * nobody may go back, a page that they had not reached in time stays closed.
 */
export function mayTurn(
	rules: MovementRules,
	page: Page,
	by: 1 | -1,
	{ isAnswered, readsOnly }: { isAnswered: Answered; readsOnly: boolean }
): boolean {
	if (by === -1) return !page.isFirst && forwardBy(rules) === null;
	if (page.isLast) return false;
	return readsOnly ? forwardBy(rules) === null : mayGoOn(rules, page, isAnswered);
}

/** Whether somebody may go from one question straight to another. */
export function mayJump(
	rules: MovementRules,
	questions: number,
	at: number,
	to: number,
	isAnswered: Answered
): boolean {
	const [here, there] = [pageAt(rules, questions, at), pageAt(rules, questions, to)];
	if (forwardBy(rules) !== null) return there.number === here.number;
	return there.number <= here.number || !rules.answerToGoOn || every(0, there.from, isAnswered);
}

function every(from: number, to: number, isSo: Answered): boolean {
	for (let i = from; i < to; i++) if (!isSo(i)) return false;
	return true;
}
