export { retentionOf, subjectData } from './retention';
export type { Kept } from './retention';
