export { countingScore, nextAttempt } from './attempts';
export type { NextAttempt, Reached } from './attempts';
