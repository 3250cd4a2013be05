export { orTooLong, ThreadError, Threads } from './threads';
export type { ThreadKind } from './threads';
export { offer } from './offer';
export type { Tasks } from './offer';
