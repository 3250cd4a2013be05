export type { LogLine } from './line';
export type { RecordVerified } from './record-verified';
