export { cellInWords, fitsCell, met, plannable } from './cell';
export type { Filling } from './filling';
export type { PlanCell, Plannable } from './cell';
