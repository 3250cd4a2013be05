export { drawToday } from './today';
export type { Bar, Lane, Today } from './today';
export { waitingFor } from './waiting';
export type { Waiting } from './waiting';
