export { aroundTime, doorOpensAt, findSession, findSessions, isOnDay, placeOf } from './session';
export type { Session } from './session';
export { day, lastDay, timeOfDay } from './entered-times';
export { networkNames } from './network';
export { siteOfCandidate } from './candidate';
export { draftGrant, findGrant, findGrants, insertGrants } from './grant';
export type { NewGrant } from './grant';
export { paperVersion } from './paper';
export type { PaperVersion } from './paper';
