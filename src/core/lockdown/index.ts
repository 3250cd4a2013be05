export { LAPSE_KINDS, LAPSE_NAMES, leavingInWords, reactionTo, SHORTEST_LEAVING_MS } from './lapse';
export type { Lapse, LapseKind } from './lapse';
export { siteAddress } from './site-address';
