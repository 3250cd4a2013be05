export type { Grant, GrantBody, GrantPlace, GrantScope, Merge } from './grant';
export { factorInWords, grantInWords, mergeGrants } from './merge';
export { effectInWords, expectedEnd } from './effect';
export type { GrantEffect } from './grant-effect';
