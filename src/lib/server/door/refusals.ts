import { nanoid } from 'nanoid';
import { fullName } from '$core/names';
import type { DoorRefusal } from '$core/room';
import { perHouse, transact, type Query } from '../db';
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

/** What tells the lines of a door apart: who was refused, and why. */
type Line = Pick<Refused, 'sessionId' | 'code'> & { candidateId: string | null; sittingId: string | null };
/** What comes to a line. */
type More = { tries: number; device: string; at: number; waitsUntil: number | null; limited: string[] };

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
	const line = { sessionId, code, candidateId, sittingId };
	const isStranger = candidateId === null;
	const device = isStranger ? plainDevice(deviceName) : deviceName;
	const more: More = { tries: 1, device, at: otium.now(), waitsUntil, limited };
	// Strangers are one line, however many devices they say that they are: a flood of names must not bury the others.
	// What comes of them within a second is written, and shown, together.
	if (isStranger) {
		const gathered = gathering(otium.db).get(nameOf(line));
		if (gathered) return addTo(gathered, more);
		gather(otium, line);
	}
	await write(otium, line, more);
}

const GATHER_MS = 1_000;
/** By line of strangers, what has come since it was written last. */
const gathering = perHouse(() => new Map<string, More>());
const nameOf = ({ sessionId, code }: Pick<Line, 'sessionId' | 'code'>) => `${sessionId} ${code}`;

function gather(otium: Needs, line: Line) {
	gathering(otium.db).set(nameOf(line), { tries: 0, device: '', at: 0, waitsUntil: null, limited: [] });
	const timer = setTimeout(() => {
		const more = gathering(otium.db).get(nameOf(line));
		gathering(otium.db).delete(nameOf(line));
		if (!more || more.tries === 0) return;
		gather(otium, line);
		// A count that can't be written now is a count too low, and nothing else.
		void write(otium, line, more).catch(() => {});
	}, GATHER_MS);
	timer.unref();
}

function addTo(gathered: More, { tries, device, at, waitsUntil, limited }: More) {
	gathered.device = gathered.tries === 0 || gathered.device === device ? device : SEVERAL;
	gathered.tries += tries;
	gathered.at = at;
	gathered.waitsUntil = waitsUntil;
	gathered.limited = [...new Set([...gathered.limited, ...limited])].slice(0, MOST_FORGIVEN);
}

/** In one transaction: two who are refused at the same moment are one line that says two. */
async function write(otium: Needs, { sessionId, code, candidateId, sittingId }: Line, more: More): Promise<void> {
	await transact(otium.db, async (trx) => {
		const row = await trx('door_refusal')
			.where({ session_id: sessionId, code, settled_at: null, candidate_id: candidateId })
			.first('id', 'tries', 'limited', 'device_name');
		const before: string[] = row ? JSON.parse(row.limited) : [];
		const put = {
			tries: (row?.tries ?? 0) + more.tries,
			device_name: !row || row.device_name === more.device ? more.device : SEVERAL,
			at: more.at,
			waits_until: more.waitsUntil,
			limited: JSON.stringify([...new Set([...before, ...more.limited])].slice(0, MOST_FORGIVEN))
		};
		if (row) await trx('door_refusal').where({ id: row.id }).update(put);
		else
			await trx('door_refusal').insert({
				id: nanoid(),
				session_id: sessionId,
				candidate_id: candidateId,
				sitting_id: sittingId,
				code,
				...put
			});
	});
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

const gatheredOf = (db: Query, row: { session_id: string; code: string; candidate_id: string | null }) =>
	row.candidate_id === null ? gathering(db).get(nameOf({ sessionId: row.session_id, code: row.code })) : undefined;

/** Vouches for whoever mistyped: what made them wait is forgiven, and they may try again at once. */
export async function forgive(otium: Needs, refusalId: string): Promise<void> {
	const row = await otium
		.db('door_refusal')
		.where({ id: refusalId })
		.first('limited', 'session_id', 'code', 'candidate_id');
	const gathered = gatheredOf(otium.db, row)?.limited ?? [];
	for (const target of [...(JSON.parse(row.limited) as string[]), ...gathered]) await otium.limits.forgive(target);
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
		session_id: string;
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
	return rows.map((row) => {
		const { tries = 0, device, at, waitsUntil } = gatheredOf(db, row) ?? {};
		const isMore = tries > 0;
		return {
			id: row.id,
			code: row.code,
			device: isMore && device !== row.device_name ? SEVERAL : row.device_name,
			tries: row.tries + tries,
			at: isMore ? at! : row.at,
			waitsUntil: isMore ? waitsUntil! : row.waits_until,
			sittingId: row.sitting_id,
			candidate: row.candidate_id === null ? null : { id: row.candidate_id, name: fullName(row), number: row.number! }
		};
	});
}
