export { readWordDocument } from './word-document';
export type { WordDocument } from './word-document';
