/** Why answers are kept that do not count, as the end of “arrived …”. */
export const KEPT_BECAUSE = {
	after_end: 'after the end',
	on_hold: 'while on hold',
	question_over: 'after the time for their question',
	gone_past: 'for questions passed before',
	freed_device: 'from a freed device',
	unproven: 'from a browser that could not show it was theirs'
};
export type KeptBecause = keyof typeof KEPT_BECAUSE;
