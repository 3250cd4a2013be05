export { dealtCount, dealtPoints } from './question';
export type { AnswerValue, Choice, Form, FormQuestion, Paper, Part, Question, Tolerance } from './question';
export { deal, keepsPlace } from './deal';
export type { OrderRules } from './deal';
export { summarise } from './facts';
export type { PaperSummary } from './facts';
