export { calculatorFor, limitsCalculator } from './calculator-allowed';
export type { Allowed, Lesser } from './calculator-allowed';
export {
	dealtCount,
	dealtPoints,
	HINT_TIMES,
	isMarkedByHand,
	materialPages,
	mediaOf,
	MOST_DOCUMENTS,
	MOST_PAGES,
	pointsToReach,
	questionsOf,
	sumOfPoints
} from './question';
export { mediaBeside, MEDIUM_TYPES, playsLeft, sharedAround, shows } from './medium';
export type { Medium, MediumType, Played, Stimulus } from './medium';
export type { HandedFile } from './handed-file';
export type { Reach } from './reach';
export type {
	Choice,
	Form,
	FormQuestion,
	Material,
	Paper,
	PracticeRules,
	PaperCard,
	Parameter,
	Part,
	Picture,
	Question,
	QuestionKind,
	Tolerance,
	TryRules,
	Wording
} from './question';
export { answerShape, fitsQuestion, isBlank, LONGEST_LINE, LONGEST_TEXT } from './answer';
export type { AnswerShape, AnswerValue } from './answer';
export { DIFFICULTIES, EXPECTED_SHARE, expectedPoints } from './difficulty';
export type { Difficulty } from './difficulty';
export { minutesNeeded } from './time-needed';
export { saidIn } from './said-in';
export type { Revision } from './revision';
export { AS_DRAWN, formulaFault, formulasFault, formulasIn, textsIn } from './formula-text';
export type { DrawnFormula } from './formula-text';
export { blocksOf, escapedWords, firstWords, inlineOf, plainText, writeBlocks, writeInline } from './rich-text';
export type { Block, Inline, Mark } from './rich-text';
export { wordCount } from './word-count';
export { NOTES } from './notes';
export { placeToResume } from './resume';
export { deal, keepsPlace } from './deal';
export { FORM_LETTERS, FORM_RULES, formFor, formsOf, inForm, putIn } from './paper-forms';
export type { FormLetter, FormPlace, FormRule, PaperForm } from './paper-forms';
export type { OrderRules } from './deal';
export { summarise } from './facts';
export type { PaperSummary } from './facts';
export { answerFor, asDrawn, calculatedFault, draw, examplesOf, namesIn, steadyPick, valueCount } from './calculated';
export type { CalculatedQuestion, Example } from './calculated';
export { asDealt } from './as-dealt';
export type { DealtQuestion } from './as-dealt';
export { renameQuestion, renameValue } from './own-ids';
export type { Name } from './own-ids';
export { chanceOfAtLeast, poolFor, poolStrength, sharedOverAll } from './pool-strength';
export type { PoolStrength } from './pool-strength';
export { aboutOf, aboutPart, editPaper, isEdited, nameInPaper, partLetter, spotOf } from './edit';
export {
	askForWorking,
	gapsOf,
	newQuestion,
	parametersOf,
	QUESTION_KIND_NAMES,
	QUESTION_KINDS,
	withoutStaleKey
} from './new-question';
export type { Edited, OneEdit, PaperAbout, PaperEdit, PartAbout, Spot } from './edit';
export { inKind } from './in-kind';
export { takeOver } from './take-over';
export { isSame } from './same';
export { comparePapers } from './compare';
export type { PaperChanges, QuestionChange } from './compare';
export { doubtsOf } from './quality';
export { doubtsOfPaper } from './paper-doubts';
export type { Doubt } from './quality';
export { MOST_PRINTED_FORMS, printedDeal, printedForm } from './printed';
export { howTyped, readTyped, typedFrom } from './typed-from-paper';
export type { Typed } from './typed-from-paper';
export type { PrintedQuestion } from './printed';
export { keyInWords } from './key-in-words';
export { readText } from './read-text';
export type { ReadQuestion, ReadText } from './read-text';
export { eachGets, expectedShare, poolInWords, sharedOnAverage } from './each-gets';
export { guessColumns, QUESTION_COLUMNS, readRows } from './read-rows';
export type { QuestionColumn } from './read-rows';
export { BALANCE_KEYS, balanceOf } from './balance';
export type { BalanceRow } from './balance';
export { poolsOf, sumOfStrata } from './pools';
export { leadOf, unitsOf } from './units';
export type { Pool } from './pools';
