export { QuestionId, QuestionSchema, StimulusSchema } from './question-schema';
