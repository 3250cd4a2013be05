export { doorOpensAt, findSession, findSessions, placeOf } from './session';
export type { Session } from './session';
export { siteOfCandidate } from './candidate';
export { draftGrant, findGrant, findGrants, insertGrants } from './grant';
export type { NewGrant } from './grant';
export { paperVersion } from './paper';
export type { PaperVersion } from './paper';
