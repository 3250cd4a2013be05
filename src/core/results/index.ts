export { byTenths, resultOf, shownPercent, shownPoints, verdictOf, writtenPoints } from './result';
export type { Result, TopicResult } from './result';
export { oneRosterFiles } from './one-roster';
export type { GradeRow, LineItem } from './one-roster';
