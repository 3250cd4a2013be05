export { act, actIn, tell } from './act';
export type { Request, Touched } from './act';
export { derivedColumns, refreshDerivedColumns } from './derived-columns';
export { loadSitting, loadSittings, loadSittingsOf, regrant, sittingsHere } from './load';
export type { Loaded } from './load';
export { begin, formOf } from './begin';
export { startClock } from './start-clock';
export { breaksOf, endBreak, endDueBreaks, takeBreak } from './breaks';
export type { Breaks } from './breaks';
