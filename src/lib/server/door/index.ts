export { noteRefusal, openRefusals, settleRefusals } from './refusals';
export type { Refused } from './refusals';
