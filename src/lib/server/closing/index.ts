export { accountFor } from './account';
export type { Account, Line } from './account';
export { resultsCsv } from './csv';
export { byHandZip, countByHand } from './by-hand';
