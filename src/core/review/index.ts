export { answerInWords, mayReview, reviewOf } from './review';
export type { Review, ReviewedQuestion, ReviewState } from './review';
