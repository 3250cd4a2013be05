/** Letters of scripts that run right to left: Hebrew, Arabic, Syriac, Thaana, NKo, Samaritan, Mandaic, Adlam and others. */
const RIGHT_TO_LEFT = /[\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufeff\u{10800}-\u{10fff}\u{1e800}-\u{1efff}]/u;
const FIRST_STRONG_ISOLATE = '\u2068';
const POP_ISOLATE = '\u2069';

/**
 * A name as it stands inside a sentence of ours: one that runs right to left is isolated, or it would draw the number and
 * the stop behind it to its other side (UAX #9, 2.4).
 */
export function isolated(name: string): string {
	return RIGHT_TO_LEFT.test(name) ? `${FIRST_STRONG_ISOLATE}${name}${POP_ISOLATE}` : name;
}
