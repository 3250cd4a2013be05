export { AnswerSaver } from './saver';
export type { Kept, Saved } from './write-group';
export { countHeldBack, heldBack } from './held-back';
export type { HeldBack } from './held-back';
export { standingAnswers } from './read';
export type { StandingAnswer } from './read';
export { takeLeftovers } from './leftovers';
export type { Leftover, LeftoversTaken } from './leftovers';
export { RevisionAsked, Seq } from './revision-schema';
