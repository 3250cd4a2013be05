export { FORMULA_FUNCTIONS, readFormula } from './formula';
export type { Formula, ReadFormula } from './formula';
export { parse } from './parse';
export { treeOf } from './tree';
export type { FormulaTree } from './tree';
