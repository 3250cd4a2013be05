export { readNumber } from './number';
export { markAnswer, markForm } from './mark';
export type { Mark, MarkingRules, Score, Verdict } from './mark';
