export { technicalList, tickTask } from './technical';
export type { TechnicalSession } from './technical';
