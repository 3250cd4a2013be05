/** How a house shows times of day: `21:30`, or `9:30 pm`. */
export type HourStyle = '24' | '12';

let style: HourStyle = '24';

/**
 * Sets how this program shows times, once, as it starts: the server from its environment, a page from the server. It is the
 * only state in core and changes nothing that is computed or kept: times are shown in a hundred places, and a style handed
 * to each of them would be wrong in the one that is forgotten.
 * @param hours `'12'` for twelve hours; anything else is the usual 24
 */
export function setHourStyle(hours: string | undefined): void {
	style = hours === '12' ? '12' : '24';
}

/** A kept time, `HH:mm` or `HH:mm:ss`, as it is shown: `21:30`, or `9:30 pm`; noon is `12:00 pm`, midnight `12:00 am`. */
export function shownTime(time: string): string {
	if (style === '24') return time;
	const hour = Number(time.slice(0, 2));
	// The space does not break: a time never stands in two lines.
	return `${hour % 12 || 12}${time.slice(2)}\u00a0${hour < 12 ? 'am' : 'pm'}`;
}
