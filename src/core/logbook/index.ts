export { DEVICE_NOTE_WORDS, entryInWords } from './in-words';
export type { LogLine } from './line';
export type { RecordVerified } from './record-verified';
