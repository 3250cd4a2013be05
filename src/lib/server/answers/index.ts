export { AnswerSaver, UnfittingAnswer, UnknownQuestion } from './saver';
export type { Saved } from './saver';
export type { Kept, Revision } from './write-group';
export { standingAnswers } from './read';
export type { StandingAnswer } from './read';
