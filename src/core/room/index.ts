export { remainingNow } from './view';
export type { DoorRefusal, RoomChange, RoomHead, RoomPicture, SeatView } from './view';
export { CANNED_MESSAGES } from './canned';
export type { CoursePoint, GridRow } from './course';
export { TALLY_ORDER, tallyKeyOf, tallyOf } from './tally';
export type { TallyKey } from './tally';
export { needsYou } from './needs';
export type { Need, NeedAct, NeedKind, RoomRules } from './needs';
export type { SittingPicture } from './sitting-view';
