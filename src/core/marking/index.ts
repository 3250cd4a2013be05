export { readNumber } from './number';
export { rightAnswer } from './key';
export { markAnswer, markForm } from './mark';
export type { Mark, MarkingRules, Score, Verdict } from './mark';
