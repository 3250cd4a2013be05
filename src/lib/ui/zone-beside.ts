import { page } from '$app/state';
import { timeAndDate, zoneBeside as beside } from '$core/time';

/** Behind a time of a session: its zone, where the clock at the top of the page shows another time than that zone's. */
export const zoneBeside = (at: number, zone: string): string => beside(at, zone, page.data.site.zone);

/** A time of a session, with its date and its zone where these are not those of the clock at the top of the page. */
export const timeInFull = (at: number, zone: string, now: number): string =>
	timeAndDate(at, zone, now) + zoneBeside(at, zone);
