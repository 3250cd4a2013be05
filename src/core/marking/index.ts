export { readNumber } from './number';
export { rightAnswer } from './key';
export { bandOf, bandsAsText, reachesPercent, readBands } from './band';
export type { Band } from './band';
export { markAnswer, markForm, markingInWords } from './mark';
export type { Mark, MarkingRules, Score, Verdict } from './mark';
