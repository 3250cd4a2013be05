export { copySheet, findSheet, foreseeApplication, listSheets, rulesFor, saveSheet, withdrawSheet } from './sheets';
export type { Application, RuleSheet, SheetResult } from './sheets';
