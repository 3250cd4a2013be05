export { copySheet, findSheet, foreseeApplication, listSheets, saveSheet, withdrawSheet } from './sheets';
export type { Application, RuleSheet, SheetResult } from './sheets';
