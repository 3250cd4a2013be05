export { STAGES, technicalTasks } from './technical';
export type { TechnicalFacts, TechnicalTask } from './technical';
