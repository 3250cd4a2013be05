export { cellInWords, fitsCell, met } from './cell';
export type { Filling } from './filling';
export type { PlanCell, Plannable } from './cell';
