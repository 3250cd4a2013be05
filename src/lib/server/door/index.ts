export { forgive, noteRefusal, openRefusals, settleRefusals } from './refusals';
export type { Refused } from './refusals';
export { withWord } from './word';
