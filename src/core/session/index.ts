export { completeRules, DEFAULT_RULES, KIND_NAMES } from './rules';
export { forwardBy, mayBeSent, mayGoOn, mayJump, mayTurn, pageAt } from './movement';
export type { Page } from './movement';
export type {
	AttemptRules,
	DoorRules,
	LockdownRules,
	MovementRules,
	PaceRules,
	ResultRules,
	ReviewRules,
	SessionKind,
	SessionRules,
	ToolRules
} from './rules';
export { scriptFor } from './script';
export type { Script } from './script';
export { rulesSentence, sessionSentence } from './sentence';
export type { SentencePart } from './sentence';
export type { Named, PaperFacts, RoomFacts, SessionFacts } from './facts';
export { checkSession } from './check';
export { isSameLanguage, languageCheck, languageName } from './language';
export type { Finding, Fix } from './finding';
export type { ReadyLine } from './ready-line';
export { applyFix } from './fix';
export { minutesBetween, minutesFrom, timesThatFollow } from './times-that-follow';
export type { TimesThatFollow } from './times-that-follow';
export { rulesElsewhere } from './elsewhere';
export { whatCameAlong } from './copied';
export { directionOf } from './direction';
