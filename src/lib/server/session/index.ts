export { administrationOf } from './administration-of';
export { offerAgain, sitAgain } from './again';
export type { Again, AttemptOffer } from './again';
export { aroundTime, doorOpensAt, findSession, findSessions, isOnDay, placeOf } from '../records';
export type { Session } from '../records';
export { killDoorCode, makeDoorCode, newReceipt } from './door-code';
export { partsOf, readInput } from './input';
export type { FieldErrors, SessionInput, SessionPart } from './input';
export { planAll, planSession, splitAsked } from './plan';
export type { Plan } from './plan';
export { gatherFacts, seatCount } from './facts';
export { isOnRoster, rosterFor } from './roster';
export { lockedBecause, saveSession } from './save';
export { scriptOf } from './script';
export {
	callTime,
	endSession,
	foreseeEnding,
	renewDoorCode,
	rosterIds,
	showDoorCodeTo,
	openEarly,
	startRoom,
	tendOwnWindows
} from './run';
export type { RunResult } from './run';
export { copiedFrom } from './copied';
export type { Copied } from './copied';
export { blankInput, choicesFor, coordinatedSites, coordinatesSite, inputFrom, inputOf, sitesOf } from './choices';
export type { Choices } from './choices';
export { addToSession } from './late-addition';
export { reseat } from './reseat';
export { contactsFor, handOver, proctorsFor } from './hand-over';
export type { Contact, Proctor } from './hand-over';
export { dropDraft, findDraft, listDrafts, saveDraft } from './draft';
export type { Draft } from './draft';
export { slipsFor } from './slips';
export { owingOf } from './owing';
export { mustBeWithin, mustPlanWithin } from './within';
export { foreseeMove, moveWindow } from './move-window';
export { LIST_PARTS, listSessions, SESSIONS_ON_PAGE } from './listed';
export type { SessionList } from './listed';
export { takeOff } from './assign';
