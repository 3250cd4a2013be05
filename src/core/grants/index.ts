export { BESIDE, GRANTED_LOOKS } from './grant';
export type {
	Beside,
	Called,
	Grant,
	GrantBody,
	GrantedLook,
	GrantKind,
	GrantPlace,
	GrantScope,
	GrantSource,
	Merge
} from './grant';
export { LOOK_NAMES, factorInWords, grantInWords, mergeGrants, scopeInWords } from './merge';
export { effectInWords } from './effect';
export type { DayLook, Foreseen, GrantEffect } from './grant-effect';
export { REOPEN_WHY } from './reopening';
export type { ReopenWhy } from './reopening';
export { toldToCandidate } from './told';
export { hoursOn, isFree, isSupervised, mostIn, overlap } from './day';
export type { Commitment, DailyHours, Days, Placed, ProctorDay, RoomDay, Span } from './day';
export { checkGrant, misfitInShort, misfitInWords } from './check-grant';
export type { Asked, Misfit } from './check-grant';
export { findSlots, placeFor, proposeSlots } from './find-slots';
export type { Proposal, Search, Slot, Wanted } from './find-slots';
