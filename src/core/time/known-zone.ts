import { DateTime, IANAZone } from 'luxon';

const QUARTER = 15 * 60_000;
/** Quarters of an hour kept for each zone before all are forgotten: those of a year. */
const MOST = 36_000;

/**
 * A zone that remembers its distance from UTC by the quarter of an hour. To reckon it is most of what a local time costs, and
 * a page of a thousand times asks for few different quarters.
 */
class KnownZone extends IANAZone {
	#offsets = new Map<number, number>();

	override offset(at: number): number {
		const quarter = Math.floor(at / QUARTER);
		const known = this.#offsets.get(quarter);
		if (known !== undefined) return known;
		const from = super.offset(quarter * QUARTER);
		// The clocks change within it: as some did in their time, at one minute past midnight.
		if (from !== super.offset((quarter + 1) * QUARTER - 1)) return super.offset(at);
		if (this.#offsets.size >= MOST) this.#offsets.clear();
		this.#offsets.set(quarter, from);
		return from;
	}
}

/** There are some hundreds, and what one says never changes: no state, but what was reckoned once. */
const zones = new Map<string, KnownZone>();

/** The zone of an IANA name, for luxon; what is no name of a zone stays as it is, and is invalid there. */
export function knownZone(name: string): IANAZone | string {
	const known = zones.get(name);
	if (known !== undefined) return known;
	if (!IANAZone.isValidZone(name)) return name;
	const zone = new KnownZone(name);
	zones.set(name, zone);
	return zone;
}

/** What clock and calendar show at an instant in a zone. */
export function wallClock(at: number, zone: string): DateTime {
	return DateTime.fromMillis(at, { zone: knownZone(zone) });
}
