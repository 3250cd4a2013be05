export { agreementOf } from './agreement';
export type { Agreement } from './agreement';
export { drawnFrom, isMarkedTwice, markersFor, NO_PLAN, planFault } from './plan';
export type { Criterion, HandPlan } from './plan';
export { handStanding } from './standing';
export type { HandMark, HandStanding } from './standing';
