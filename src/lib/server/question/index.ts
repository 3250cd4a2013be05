export { QuestionId, QuestionSchema } from './question-schema';
