export { assignSeats, PLAIN_PLAN, seatName, seatOrder, seatRows, usableSeats } from './seats';
export type { SeatPlan } from './seats';
