import { nanoid } from 'nanoid';
import type { DoorRefusal } from '$core/room';
import type { Query } from '../db';
import type { House } from '../house';

/** What this needs of the house. */
type Needs = Pick<House, 'db' | 'now' | 'hub' | 'limits'>;

/** Who was refused, as far as it is known. */
export type Refused = {
	sessionId: string;
	code: string;
	deviceName: string;
	candidateId?: string | null;
	sittingId?: string | null;
	/** Until when the door makes them wait after wrong tries, and the limits that say so. */
	waitsUntil?: number | null;
	limited?: string[];
};

const SEVERAL = 'Several devices';
/** What devices call themselves. Whoever nobody knows writes nothing of their own onto a proctor's screen. */
const DEVICES =
	/^(Windows|Android|iPhone|iPad|Mac|Chromebook|Linux|Device), (Firefox|Edge|Chrome|Safari|browser)$|^(Tablet|Laptop|College laptop|Sealed client)$/;
const plainDevice = (name: string) => (DEVICES.test(name) ? name : 'A device');

/** So many rows of misses one line remembers. */
const MOST_FORGIVEN = 200;

/**
 * Notes that somebody stands before a session's door and was refused, for the proctor to see. The same person or device
 * refused again for the same reason is one line that counts.
 */
export async function noteRefusal(otium: Needs, refused: Refused): Promise<void> {
	const {
		sessionId,
		code,
		deviceName,
		candidateId = null,
		sittingId = null,
		waitsUntil = null,
		limited = []
	} = refused;
	// Strangers are one line, however many devices they say that they are: a flood of names must not bury the others.
	const same = await otium
		.db('door_refusal')
		.where({ session_id: sessionId, code, settled_at: null, candidate_id: candidateId })
		.first('id', 'tries', 'limited', 'device_name');
	const device = candidateId === null ? plainDevice(deviceName) : deviceName;
	const at = otium.now();
	if (same) {
		const all = new Set([...(JSON.parse(same.limited) as string[]), ...limited]);
		await otium
			.db('door_refusal')
			.where({ id: same.id })
			.update({
				tries: same.tries + 1,
				device_name: same.device_name === device ? device : SEVERAL,
				at,
				waits_until: waitsUntil,
				limited: JSON.stringify([...all].slice(0, MOST_FORGIVEN))
			});
	} else {
		await otium.db('door_refusal').insert({
			id: nanoid(),
			session_id: sessionId,
			candidate_id: candidateId,
			sitting_id: sittingId,
			code,
			device_name: device,
			waits_until: waitsUntil,
			limited: JSON.stringify(limited),
			at
		});
	}
	otium.hub.changed(sessionId);
}

/** Lines are settled by a proctor, or by themselves when the person has come in. */
export async function settleRefusals(
	otium: Needs,
	sessionId: string,
	which: { id: string } | { sitting_id: string } | { candidate_id: string }
): Promise<void> {
	const settled = await otium
		.db('door_refusal')
		.where({ session_id: sessionId, settled_at: null, ...which })
		.update({ settled_at: otium.now() });
	if (settled > 0) otium.hub.changed(sessionId);
}

/** Vouches for whoever mistyped: what made them wait is forgiven, and they may try again at once. */
export async function forgive(otium: Needs, refusalId: string): Promise<void> {
	const row = await otium.db('door_refusal').where({ id: refusalId }).first('limited');
	for (const target of JSON.parse(row.limited) as string[]) await otium.limits.forgive(target);
}

/** After so long without another try whoever it was has gone. */
const FORGOTTEN_MS = 30 * 60_000;

/** The lines that are open at a session's door, oldest first. */
export async function openRefusals(db: Query, sessionId: string, now: number): Promise<DoorRefusal[]> {
	const rows = (await db('door_refusal')
		.leftJoin('candidate', 'candidate.id', 'door_refusal.candidate_id')
		.where({ session_id: sessionId, settled_at: null })
		.where('at', '>', now - FORGOTTEN_MS)
		.orderBy('at')
		.select('door_refusal.*', 'candidate.number', 'candidate.given', 'candidate.family')) as {
		id: string;
		code: string;
		device_name: string;
		tries: number;
		at: number;
		waits_until: number | null;
		sitting_id: string | null;
		candidate_id: string | null;
		number: string | null;
		given: string | null;
		family: string | null;
	}[];
	return rows.map((row) => ({
		id: row.id,
		code: row.code,
		device: row.device_name,
		tries: row.tries,
		at: row.at,
		waitsUntil: row.waits_until,
		sittingId: row.sitting_id,
		candidate:
			row.candidate_id === null
				? null
				: { id: row.candidate_id, name: `${row.given} ${row.family}`, number: row.number! }
	}));
}
