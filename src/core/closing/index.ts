export { addUp, columnOf, LEDGER_COLUMNS } from './ledger';
export type { Ledger, LedgerColumn } from './ledger';
export type { ReceiptVerdict } from './receipt-verdict';
export { commandsForFate, fateAtEnd } from './ending';
export type { EndingFate, EndingLine, Fate } from './ending';
export { moveFate, moveObjection } from './move-window';
export type { MoveFate, MoveLine } from './move-window';
