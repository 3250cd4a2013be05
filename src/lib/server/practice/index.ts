export { playsFile, practiceForm, practicePapers } from './practice';
export type { PracticePaper } from './practice';
