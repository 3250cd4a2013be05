export { isHereAlone, isSetUp, missingForSession, readAddress, setUpSteps } from './steps';
export type { HouseFacts, SetUpStep } from './steps';
export { readStaffLines } from './staff-lines';
export type { StaffLine } from './staff-lines';
