export { PRINTS, printFor } from './papers';
export type { Print } from './papers';
