export { drawToday } from './today';
export type { Bar, Lane, Today } from './today';
