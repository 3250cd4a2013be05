export { AskSchema, BankChangeSchema, BulkSchema, RemarkSchema } from './bank-schema';
export { bankTopics, BANK_PAGE, findInBank } from './find';
export type { BankAsk, BankLine } from './find';
export { keepInBank, noteUse } from './keep';
export type { Kept } from './keep';
export { bankQuestion, changeMany, remark, saveBankQuestion, settleRemark } from './one';
export type { BankChange, BankQuestion, BulkChange, Remark } from './one';
export { besideBank } from './newer';
export { writerOf } from './ownership';
