export { dropHanded, handedIn, keepHanded, MOST_HANDED_BYTES, readHanded } from './handed';
export { HAND_CODE_MS, readHandCode, writeHandCode } from './hand-code';
export { paperToType, typeFromPaper } from './from-paper';
export type { PaperToType, ToType } from './from-paper';
export { addScan } from './scan';
export { takesFiles } from './takes-files';
