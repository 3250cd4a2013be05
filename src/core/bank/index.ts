export { isOnBranch, topicPath, topicTree } from './topic';
export type { TopicBranch } from './topic';
export { likeness, NEARLY_THE_SAME, wordsOf } from './alike';
export { BANK_PAGE } from './wire';
export type { BankLine, BankQuestion, Remark } from './wire';
export { AUDIENCE_NAMES, AUDIENCES, mayChange, mayUse, writesAt } from './audience';
export type { Audience, Ownership, Writer } from './audience';
