export { saveSteps, standingAtDoor, standingOf, stepsOf, tickStep } from './steps';
export type { StepsStanding } from './steps';
