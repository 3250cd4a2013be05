export { DEVICE_NOTE_WORDS, entryInWords } from './in-words';
export type { LogLine } from './line';
export type { RecordVerified } from './record-verified';
export { KEPT_BECAUSE } from './kept-because';
export type { KeptBecause } from './kept-because';
