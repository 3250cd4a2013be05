export { paperVersion } from './paper';
export type { PaperVersion } from './paper';
export { draftFor, editDraft, freezeDraft, listPapers, makeDraft, writesAt } from './drafts';
export type { PaperDraft, PaperLine } from './drafts';
export { MOST_DOCUMENT_BYTES, readDocument } from './read-document';
export { findQuestions } from './find-questions';
export type { FoundQuestion } from './find-questions';
export { EditSchema } from './question-schema';
