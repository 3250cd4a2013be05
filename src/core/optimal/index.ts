export { fillPlan } from './fill-plan';
export type { Choosable, Filled } from './fill-plan';
export { parallelForms } from './parallel-forms';
export type { Forms } from './parallel-forms';
