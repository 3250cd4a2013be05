export { accountFor } from './account';
export type { Account, Line } from './account';
export { resultsCsv } from './csv';
