export { appendToLogbook, dropUnchained, emptyEntries, unkeyedPart, verifyLogbook } from './logbook';
export type { Entry, NewEntry, Verification } from './logbook';
export { countOfSession, logbookPage, searchLogbook } from './search';
export type { LogSearch } from './search';
