export { paperVersion } from './paper';
export type { PaperVersion } from './paper';
export { draftFor, editDraft, freezeDraft, listPapers, makeDraft, writesAt } from './drafts';
export type { PaperDraft, PaperLine } from './drafts';
export { MOST_DOCUMENT_BYTES, readDocument } from './read-document';
export { EditSchema } from './question-schema';
