export {
	formulasAreCheap,
	MediumSchema,
	QuestionId,
	QuestionSchema,
	StimulusSchema,
	StoredQuestionSchema,
	tryRules
} from './question-schema';
