export { paperVersion } from './paper';
export type { PaperVersion } from './paper';
export { draftFor, editDraft, freezeDraft, keepOfDraft, listPapers, makeDraft } from './drafts';
export type { PaperDraft, PaperLine } from './drafts';
export { MOST_DOCUMENT_BYTES, readDocument } from './read-document';
export { packageOf, readQti } from './qti-package';
export type { Incoming } from './qti-package';
export { EditSchema } from './edit-schema';
