export { foreseeGrant, giveGrant, giveGrants, withdrawGrant, withdrawGrants } from './give';
export type { Effect, Given } from './give';
export { draftGrant, findGrant, findGrants, insertGrants } from './store';
export type { NewGrant } from './store';
export { grantsOfDay, toLine } from './overview';
export type { GrantLine } from './overview';
export { GrantAsked, readGrant } from './ask';
