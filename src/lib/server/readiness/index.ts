export { readinessOf } from './readiness';
export type { Readiness, ReadyLine } from './readiness';
