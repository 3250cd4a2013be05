export { readinessOf } from './readiness';
export type { Readiness } from './readiness';
