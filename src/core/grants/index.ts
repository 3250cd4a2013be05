export { BESIDE, GRANT_SOURCES } from './grant';
export type {
	Beside,
	Called,
	Grant,
	GrantBody,
	GrantKind,
	GrantPlace,
	GrantScope,
	GrantSource,
	Merge
} from './grant';
export { factorInWords, grantInWords, mergeGrants, scopeInWords } from './merge';
export { effectInWords, expectedEnd } from './effect';
export type { DayLook, Foreseen, GrantEffect } from './grant-effect';
export { toldToCandidate } from './told';
export { hoursOn } from './day';
export type { Commitment, DailyHours, Days, Placed, ProctorDay, RoomDay, Span } from './day';
export { checkGrant, misfitInWords } from './check-grant';
export type { Asked, Misfit } from './check-grant';
export { findSlots, placeFor, proposeSlots } from './find-slots';
export type { Proposal, Search, Slot, Wanted } from './find-slots';
