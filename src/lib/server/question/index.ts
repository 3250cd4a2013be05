export { QuestionId, QuestionSchema, StimulusSchema, tryRules } from './question-schema';
