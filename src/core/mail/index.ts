export { fillIn, MAIL_WORDS, TEMPLATES, tellsInSubject, unknownWords } from './templates';
export type { MailFacts, MailKind, Template } from './templates';
export { changedSince, changesInWords, toldIn } from './told';
export type { Told, ToldChange } from './told';
export { isEmailAddress } from './email-address';
