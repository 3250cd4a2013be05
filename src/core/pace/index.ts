export { checkedTimes, HOLD_IN_A_ROW, isRapid, PACE_LEVELS, paceOf, SPOILED_SHARE } from './pace';
export type { Pace, PaceLevel, Response } from './pace';
export { quantile, responseTimes } from './response-times';
export type { ResponseTimes, TimedAnswer } from './response-times';
export { ENOUGH_OBSERVATIONS, thresholdMs, wordsOf } from './threshold';
export type { Observations } from './threshold';
