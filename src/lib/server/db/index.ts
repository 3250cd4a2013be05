export { appendAnswers, standAnswers } from './answer-rows';
export type { AnswerRow, StandingRow } from './answer-rows';
export { backupDb, connectDb, isUnavailable, NewerDatabase, openDb, transact } from './open';
export type { Db, Query } from './open';
export { lateAnswers } from './late-answers';
export { heldAnswers } from './held-answers';
export { groupBy } from './group-by';
export { insertMany } from './insert-many';
export { whereEveryWord } from './words';
