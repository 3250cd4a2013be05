export { answerInWords, mayReview, reviewOf } from './review';
export type { Review, ReviewedQuestion } from './review';
