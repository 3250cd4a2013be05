export { postLetter } from './letter';
export { mailLeaves, mailTransport, sendWaiting, wordsOf } from './post';
export type { Mail } from './post';
export { isDue, lettersFor, postDue, postLetters, saveTemplate, templateFor } from './write';
export type { Letter } from './write';
