export { closedBefore, KEPT_YEARS, keptUntil, NO_END, termsFault } from './terms';
export type { RetentionTerms } from './terms';
