export { drawToday } from './today';
export type { Bar, Lane, ReadyLine, Today } from './today';
