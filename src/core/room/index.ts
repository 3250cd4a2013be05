export { remainingNow } from './view';
export type { RoomChange, RoomHead, RoomPicture, SeatView } from './view';
export { TALLY_ORDER, tallyKeyOf, tallyOf } from './tally';
export type { TallyKey } from './tally';
export { needsYou } from './needs';
export type { Need, NeedKind } from './needs';
export type { SittingPicture } from './sitting-view';
