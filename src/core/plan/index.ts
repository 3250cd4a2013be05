export { cellInWords, fitsCell, met } from './cell';
export type { PlanCell, Plannable } from './cell';
