export type { LogLine } from './line';
