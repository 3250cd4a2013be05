export { checkedTimes, HOLD_IN_A_ROW, isRapid, PACE_LEVELS, paceOf, SPOILED_SHARE } from './pace';
export type { Pace, PaceLevel, Response } from './pace';
export { ENOUGH_OBSERVATIONS, thresholdMs, wordsOf } from './threshold';
export type { Observations } from './threshold';
