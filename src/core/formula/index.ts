export { FORMULA_FUNCTIONS, readFormula } from './formula';
export type { Formula, ReadFormula } from './formula';
