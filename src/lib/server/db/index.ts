export { idsAsMade } from './as-made';
export { appendAnswers, chainByDigest, chainGroup, emptiedGroup, NO_GROUP, standAnswers } from './answer-rows';
export type { AnswerGroup, AnswerRow, StandingRow, StoredAnswer } from './answer-rows';
export { EMPTIED_TABLES, FROZEN_TABLES } from './closed-rows';
export { bindingOf } from './binding';
export type { Binding } from './binding';
export { dealtForm } from './dealt-form';
export {
	backupDb,
	connectDb,
	isOfClosed,
	isUnavailable,
	NewerDatabase,
	openDb,
	overwriting,
	transact,
	writeIfPossible
} from './open';
export type { Db, Query } from './open';
export { lateAnswers } from './late-answers';
export { heldAnswers } from './held-answers';
export { whereBegun } from './where-begun';
export { answerRevisions, answersByMinute } from './answer-counts';
export { deleteOutlived } from './outlived';
export { keyFor, KEY_FILE, macOf, markOf, openSecret, readHouseKey, sealSecret, WrongHouseKey } from './house-key';
export { perHouse } from './per-house';
export { houseSetting, keepHouseSetting } from './house-setting';
export { cardIn, questionsIn } from './questions-in';
export { canonicalJson } from './canonical-json';
export { insertMany } from './insert-many';
export { pagedRows } from './paged-rows';
export { planOf } from './query-plan';
export { proctorsBeside } from './proctors-beside';
export { beginningFirst, nearestFirst, whereEveryWord } from './words';
export { appendToLogbook, GENESIS, toldBy } from './log-entries';
export type { Entry, NewEntry } from './log-entries';
export { ROWS_ENTRY, verifyRows } from './row-seals';
export type { RowsVerified } from './row-seals';
