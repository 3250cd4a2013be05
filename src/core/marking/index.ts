export { isReduced, readNumber } from './number';
export { rightAnswer } from './key';
export { bandOf, bandsAsText, reachesPercent, readBands } from './band';
export type { Band } from './band';
export { earlyInWords, earlyPoints } from './early';
export { asTreated, markAnswer, markForm, markingInWords } from './mark';
export type { Mark, MarkingRules, MarkingSoFar, Score, Verdict } from './mark';
export { CORRECTION_KINDS, treat, treatmentsOf, UNTREATED } from './treatment';
export type { Correction, Treatment } from './treatment';
