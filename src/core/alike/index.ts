export { findAlike, tailOf } from './alike';
export type { AlikePair, Answered } from './alike';
