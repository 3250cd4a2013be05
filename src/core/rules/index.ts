export {
	differingRules,
	faultOf,
	readRules,
	rulesFor,
	SECTIONS,
	SETTINGS,
	valueAt,
	valueInWords,
	withValue
} from './settings';
export type { RuleDifference, RuleFaults, Section, Setting, SettingKind } from './settings';
export { SHIPPED_SHEETS } from './shipped';
export type { ShippedSheet } from './shipped';
export { protectionInWords, protectionOf } from './protection';
export type { Protection, ProtectionFacts } from './protection';
