export {
	copySheet,
	findSheet,
	foreseeApplication,
	listSheets,
	mayChangeSheet,
	saveSheet,
	withdrawSheet
} from './sheets';
export type { Application, RuleSheet, SheetResult } from './sheets';
