export { fillIn, MAIL_WORDS, TEMPLATES, unknownWords } from './templates';
export type { MailFacts, MailKind, Template } from './templates';
