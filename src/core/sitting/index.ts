export { circumstances, opensFor, ownRemaining, roomWaits } from './circumstances';
export type { Situation } from './circumstances';
export { decide } from './decide';
export type { Decision } from './decide';
export { evolve } from './evolve';
export {
	breakSince,
	DEVICE_NOTES,
	ENDED,
	hasEnded,
	IN_THE_ROOM,
	isAtWork,
	isHeldByRules,
	isInTheRoom,
	isResting,
	isUnfinished,
	newSitting,
	SITTING_STATES,
	STATE_NAMES,
	stateBehindHold,
	trackOf,
	UNFINISHED
} from './sitting';
export type { Actor, Device, DeviceNote, Noted, Role, Sitting, SittingState, Visit, Work } from './sitting';
export type { Command, CommandBody, CommandKind, Context, Word } from './commands';
export { isSittingEvent } from './events';
export type { SittingEvent, SittingEventBody, SittingEventKind } from './events';
export { refusal, REFUSAL_CODES, RefusalError } from './refusals';
export type { Refusal, RefusalCode } from './refusals';
export type { Outcome } from './outcome';
export { TABLE } from './table';
