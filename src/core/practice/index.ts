export { practised, shareAfter, tryQuestion } from './practice';
export type { Tried } from './practice';
