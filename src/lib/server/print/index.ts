export { toPdf } from './pdf';
export { PAPER_PRINTS, printPaper } from './paper';
export type { PaperPrint } from './paper';
export { PRINTS, printFor } from './papers';
export type { Print } from './papers';
