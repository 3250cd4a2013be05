export { standingOfStep, stepsFault } from './steps';
export type { Step, StepDone, StepStanding } from './steps';
