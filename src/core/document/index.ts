export { PICTURE, readWordDocument } from './word-document';
export type { WordDocument } from './word-document';
export { texOfOfficeMath } from './office-math';
