import type { EntryRefusal } from '$core/access';
import { refusal, type Refusal } from '$core/sitting';

/** What the door says to a candidate. */
export type Answer<T> = ({ ok: true } & T) | Refused;

type Refused = { ok: false; refusal: Refusal; waitSeconds?: number };

/** A refusal of the door in its own words. */
export function refuse(code: EntryRefusal, waitSeconds?: number): Refused {
	return { ok: false, refusal: refusal(code), waitSeconds };
}

/** An address that the session's networks do not hold. */
export const offNetwork = () => refuse('off_network');
