/** How a number is shown, as far as it changes what somebody reads: as a day, a time, a share, or with zeros before it. */
export type Shown = 'date' | 'time' | 'date_time' | 'percent' | { digits: number } | null;

/** Formats that every workbook has without naming them (ECMA-376 part 1, 18.8.30). */
const BUILT_IN: Record<number, Shown> = {
	9: 'percent',
	10: 'percent',
	14: 'date',
	15: 'date',
	16: 'date',
	17: 'date',
	18: 'time',
	19: 'time',
	20: 'time',
	21: 'time',
	22: 'date_time',
	45: 'time',
	46: 'time',
	47: 'time'
};

/** What a number's format makes of it. @param code the format's own text; undefined: it is built in */
export function shownAs(id: number, code: string | undefined): Shown {
	if (code === undefined) return BUILT_IN[id] ?? null;
	const plain = code.replace(/"[^"]*"|\\.|\[[^\]]*\]|_.|\*./g, '').split(';')[0];
	if (/^0{2,}$/.test(plain)) return { digits: plain.length };
	if (/%/.test(plain)) return 'percent';
	const hasDay = /[yd]/i.test(plain);
	const hasTime = /[hs]/i.test(plain);
	if (hasDay) return hasTime ? 'date_time' : 'date';
	if (hasTime) return 'time';
	return /m{3,}/i.test(plain) ? 'date' : null;
}

const DAY_MS = 86_400_000;

/**
 * A number as the sheet shows it. Days count from 1900 (with the 29 February 1900 that never was) or from 1904.
 * @returns ISO dates, 24-hour times
 */
export function numberInWords(value: number, shown: Shown, is1904: boolean): string {
	if (shown === null) return String(value);
	if (typeof shown === 'object')
		return Number.isInteger(value) && value >= 0 ? String(value).padStart(shown.digits, '0') : String(value);
	if (shown === 'percent') return `${Number((value * 100).toPrecision(12))} %`;
	const days = is1904 ? value + 1_462 : value < 60 ? value + 1 : value;
	const at = new Date(Math.round((days - 25_569) * 86_400) * 1_000);
	if (Number.isNaN(at.getTime())) return String(value);
	const iso = at.toISOString();
	const clock = iso.slice(11, at.getTime() % 60_000 === 0 ? 16 : 19);
	if (shown === 'time') return value >= 1 ? hours(value) : clock;
	return shown === 'date' || at.getTime() % DAY_MS === 0 ? iso.slice(0, 10) : `${iso.slice(0, 10)} ${clock}`;
}

/** More than a day, as hours and minutes: `26:30`. */
function hours(days: number): string {
	const minutes = Math.round(days * 24 * 60);
	return `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')}`;
}
