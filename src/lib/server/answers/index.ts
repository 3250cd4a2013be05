export { AnswerSaver, UnfittingAnswer, UnknownQuestion } from './saver';
export type { Saved } from './saver';
export type { Kept, Revision } from './write-group';
export { countHeldBack, heldBack } from './held-back';
export type { HeldBack } from './held-back';
export { standingAnswers } from './read';
export type { StandingAnswer } from './read';
