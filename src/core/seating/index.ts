export { assignSeats, PLAIN_PLAN, seatName, seatRows, usableSeats } from './seats';
export type { SeatPlan } from './seats';
