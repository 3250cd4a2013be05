export { devicesReady } from './devices-ready';
export { readinessOf } from './readiness';
export type { Readiness } from './readiness';
