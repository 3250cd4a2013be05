export { act, actIn, contextFor, tell } from './act';
export type { Outcome, Request, Touched } from './act';
export { consequences, refreshConsequences } from './consequences';
export { loadSitting, loadSittings, loadSittingsOf, regrant, sittingsHere } from './load';
export type { Loaded } from './load';
export { begin, formOf } from './begin';
export { breaksOf, endBreak, endDueBreaks, takeBreak } from './breaks';
export type { Breaks } from './breaks';
