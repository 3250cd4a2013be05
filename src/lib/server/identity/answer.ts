import { ENTRY_REFUSALS, type EntryRefusal } from '$core/access';
import type { Refusal } from '$core/sitting';

/** What the door says to a candidate. */
export type Answer<T> = ({ ok: true } & T) | { ok: false; refusal: Refusal; waitSeconds?: number };

/** A refusal of the door in its own words. */
export function refuse(code: EntryRefusal): { ok: false; refusal: Refusal } {
	return { ok: false, refusal: { code, ...ENTRY_REFUSALS[code] } };
}

/** An address that the session's networks do not hold. */
export const offNetwork = () => refuse('off_network');
