export { HOUR, LOADING_MS, MINUTE, NEW_TRACK, NO_GRANTS } from './rules';
export type { MergedGrants, Phase, Stop, TimingRules, Track, Window } from './rules';
export {
	allottedMinutes,
	endsByTime,
	lastEntryOf,
	lastsUntil,
	ranOn,
	reckon,
	stopCounts,
	unionLength,
	workLastsUntil
} from './reckon';
export type { Reckoning } from './reckon';
export {
	asEntered,
	minutesForAll,
	reckonQuestion,
	secondsEach,
	twoLimitsInWords,
	withWholeLimit
} from './question-time';
export type { QuestionTime } from './question-time';
export { tellWarning } from './warnings';
export {
	clockTime,
	instantFromLocal,
	localDate,
	localDay,
	localMidnightAfter,
	localTime,
	longDate,
	sameLocalDay,
	shortDate,
	timeAndDate,
	timeElsewhere,
	zoneBeside,
	zoneName
} from './zone';
export {
	addDays,
	asLocalWindow,
	daysBetween,
	isOverDays,
	lastDayEnds,
	openUntil,
	reachesInto,
	readLocalWindow
} from './local-window';
export type { LocalWindow } from './local-window';
export { setHourStyle, shownTime } from './house-style';
export type { LocalInstant } from './zone';
export { clockLength, minutesAndGrace, minutesInWords, minutesLeft } from './durations';
export { fieldDate, readDate, readTime } from './typed';
export { wallClock } from './known-zone';
