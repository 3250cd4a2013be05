export { fillPlan } from './fill-plan';
export type { Choosable, Filled } from './fill-plan';
export { parallelForms } from './parallel-forms';
export type { Forms } from './parallel-forms';
export { costOf, planForAll, planPlainly } from './plan-for-all';
export type { Place, PlaceDay, PlanForAll, ToPlace } from './plan-for-all';
