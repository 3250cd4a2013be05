export { appendToLogbook } from '../db';
export type { Entry, NewEntry } from '../db';
export { dropUnchained, emptyEntries, unkeyedPart, verifyLogbook } from './logbook';
export type { Verification } from './logbook';
export { countOfSession, logbookPage, searchLogbook } from './search';
export type { LogSearch } from './search';
