export { foreseeGrant, giveGrant, giveGrants, withdrawGrant, withdrawGrants } from './give';
export type { Given } from './give';
export { draftGrant, findGrant, findGrants, insertGrants } from '../records';
export type { NewGrant } from '../records';
export { grantsOfDay, toLine } from './overview';
export type { GrantLine } from './overview';
export { GrantAsked, mustReach, readGrant } from './ask';
