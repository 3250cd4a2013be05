export { MediumSchema, QuestionId, QuestionSchema, StimulusSchema, tryRules } from './question-schema';
