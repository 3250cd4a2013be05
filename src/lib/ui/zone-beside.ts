import { page } from '$app/state';
import { zoneBeside as beside } from '$core/time';

/** Behind a time of a session: its zone, where the clock at the top of the page shows another time than that zone's. */
export const zoneBeside = (at: number, zone: string): string => beside(at, zone, page.data.site.zone);
