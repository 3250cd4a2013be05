export { deleteWhatIsDue, dueNow } from './delete-what-is-due';
export { retentionOf, subjectData } from './retention';
export type { Kept } from './retention';
export { retentionTerms, saveRetentionTerms } from './retention-terms';
