import { randomBytes, verify, type KeyObject } from 'node:crypto';
import { nanoid } from 'nanoid';
import {
	clientSignatureBase,
	readClientSignature,
	readDoorCode,
	showSlip,
	slipCodeFrom,
	type ProvenClient
} from '$core/access';
import type { Actor } from '$core/sitting';
import { markOf, perHouse, transact, writeIfPossible, type Query } from '../db';
import { heldBy } from '../lines';
import { appendToLogbook } from '../logbook';
import type { House } from '../house';
import { publicKeyOf } from './public-key';
import { newToken, readNote, signNote } from './tokens';
import { latest } from '../latest';

/** What this needs of the house. */
type Needs = Pick<House, 'db' | 'now' | 'limits'>;

/** A challenge is answered at once or not at all. */
const CHALLENGE_MS = 60_000;
/** A proof at the door holds so long; the client proves itself anew while it runs, and signs each request once it is in. */
const PROOF_MS = 3 * 60_000;
/** In so long whoever looks after the devices goes from one to the next. */
const ENROLMENT_MS = 2 * 3_600_000;
const MOST_DEVICES = 500;
/** How often it is written down that a device was there. */
const SEEN_EVERY_MS = 60_000;

/** Challenges that have been answered; a flood of them drops the oldest, which are soon too old anyway. */
const answered = perHouse(() => latest<true>(200_000));

/**
 * Makes a nonce that can be answered once. It is sealed and not stored, so that whoever asks for them without end makes the
 * disk do nothing.
 */
export async function makeChallenge(otium: Needs): Promise<{ nonce: string; expires: number }> {
	const expires = otium.now() + CHALLENGE_MS;
	return { nonce: await signNote(otium.db, { challenge: newToken() }, expires), expires };
}

/** Whether it is a challenge of ours that nobody has answered yet; from now on it is answered. */
async function takeChallenge(otium: Needs, nonce: string): Promise<boolean> {
	const note = await readNote(otium.db, nonce, otium.now());
	if (!note?.challenge || answered(otium.db).has(nonce)) return false;
	answered(otium.db).set(nonce, true);
	return true;
}

/** A code by which devices of a site enrol, for two hours; told this once. */
export async function openEnrolment(otium: Needs, by: Actor, siteId: string): Promise<{ code: string; until: number }> {
	const now = otium.now();
	const code = slipCodeFrom(randomBytes(80));
	const until = now + ENROLMENT_MS;
	await transact(otium.db, async (trx) => {
		await trx('client_enrolment').where('expires_at', '<', now).delete();
		await trx('client_enrolment').insert({
			code_mark: markOf(trx, `enrol ${code}`),
			site_id: siteId,
			made_by: by.id,
			made_at: now,
			expires_at: until
		});
		await appendToLogbook(trx, [{ at: now, by, kind: 'enrolment_opened', body: { site: siteId } }]);
	});
	return { code: showSlip(code), until };
}

export type Enrolled =
	| { ok: true; deviceId: string }
	| { ok: false; message: string; instead: string; waitSeconds?: number };

/** Takes a device in: the key that it has made for itself, whose private half it keeps. */
export async function enrol(
	otium: Needs,
	asked: { code: string; name: string; publicKey: string; address: string }
): Promise<Enrolled> {
	const now = otium.now();
	const wrong = {
		ok: false as const,
		message: 'No devices enrol by this code.',
		instead: 'Ask for the code of now; it holds for two hours.'
	};
	// A code of fifty bits is not guessed in two hours, so nobody waits for another's misses at the same address.
	const waitSeconds = await otium.limits.asked('enrol', asked.address);
	if (waitSeconds > 0) return { ...wrong, waitSeconds };
	if (!isEd25519(asked.publicKey)) return { ...wrong, message: 'This is not an Ed25519 key.' };
	const id = nanoid(12);
	const taken = await transact(otium.db, async (trx) => {
		const code_mark = markOf(trx, `enrol ${readDoorCode(asked.code)}`);
		const open = await trx('client_enrolment')
			.where({ code_mark })
			.where('expires_at', '>', now)
			.where('devices', '<', MOST_DEVICES)
			.first('site_id', 'made_by');
		if (!open) return false;
		await trx('client_enrolment').where({ code_mark }).increment('devices', 1);
		await trx('client_device').insert({
			id,
			site_id: open.site_id,
			name: asked.name,
			public_key: asked.publicKey,
			enrolled_by: open.made_by,
			enrolled_at: now
		});
		const by: Actor = { role: 'system', id: 'enrolment' };
		const body = { device: asked.name, id, site: open.site_id };
		await appendToLogbook(trx, [{ at: now, by, kind: 'client_enrolled', body }]);
		return true;
	});
	if (!taken) return wrong;
	return { ok: true, deviceId: id };
}

function isEd25519(publicKey: string): boolean {
	try {
		return publicKeyOf(publicKey).asymmetricKeyType === 'ed25519';
	} catch {
		return false;
	}
}

type Row = { id: string; site_id: string; public_key: string; seen_at: number | null; withdrawn_at: number | null };
type Known = { row: Row; key: KeyObject; seenAt: number };
/** Read once; what is withdrawn is forgotten here by whoever withdraws it. */
const known = perHouse(() => latest<Known>(10_000));

async function deviceKey(db: Query, id: string): Promise<Known | null> {
	const there = known(db).get(id);
	if (there) return there;
	const row: Row | undefined = await db('client_device').where({ id }).whereNull('withdrawn_at').first();
	if (!row) return null;
	const fresh = { row, key: publicKeyOf(row.public_key), seenAt: 0 };
	known(db).set(id, fresh);
	return fresh;
}

/** Whether it is that device's signature; notes that the device was there. */
async function isSignedBy(
	otium: Needs,
	deviceId: string,
	version: string,
	text: string,
	signature: string
): Promise<ProvenClient | null> {
	const device = await deviceKey(otium.db, deviceId);
	if (!device || !verify(null, Buffer.from(text), device.key, Buffer.from(signature, 'base64'))) return null;
	const now = otium.now();
	if (now - device.seenAt >= SEEN_EVERY_MS) {
		device.seenAt = now;
		await writeIfPossible(otium.db('client_device').where({ id: deviceId }).update({ seen_at: now, version }));
	}
	return { siteId: device.row.site_id, version, deviceId };
}

/** What a client signs at the door: the number that it was given, and its version. */
export const proofText = (nonce: string, version: string) => `${nonce}.${version}`;

export type Answered = { nonce: string; device: string; version: string; signature: string; address: string };
export type Proved = { ok: true; note: string; expires: number } | { ok: false; message: string; instead: string };

/**
 * Takes the answer to a challenge, at the door. The nonce is used up whatever the answer is. The note that comes back
 * holds for the address that it was given to, for minutes, and for the door alone.
 */
export async function proveClient(otium: Needs, answer: Answered): Promise<Proved> {
	const now = otium.now();
	if (!(await takeChallenge(otium, answer.nonce)))
		return { ok: false, message: 'This challenge was used or has expired.', instead: 'Ask for a new one.' };
	const { nonce, device, version, signature, address } = answer;
	const client = await isSignedBy(otium, device, version, proofText(nonce, version), signature);
	if (!client)
		return {
			ok: false,
			message: 'The sealed client could not prove itself.',
			instead:
				'This device has not been enrolled, or was withdrawn. Ask the people who look after devices to enrol it again.'
		};
	const expires = now + PROOF_MS;
	return { ok: true, note: await signNote(otium.db, { client, address }, expires), expires };
}

/** The client that a note from the door stands for, when it comes from where it was given and its device still holds. */
export async function readClientNote(otium: Needs, note: string, address: string): Promise<ProvenClient | null> {
	const read = await readNote(otium.db, note, otium.now());
	if (!read?.client || read.address !== address) return null;
	const client = read.client as ProvenClient;
	return (await deviceKey(otium.db, client.deviceId)) ? client : null;
}

/**
 * The client that has signed this request of a sitting beside the browser; null: none has.
 * @param browser the browser's own signature, which has been checked
 */
export async function clientOfRequest(
	otium: Needs,
	header: (name: string) => string | null,
	request: { method: string; path: string; digest: string; browser: string }
): Promise<ProvenClient | null> {
	const said = readClientSignature(header);
	if (!said) return null;
	const { device, version, signature } = said;
	const text = clientSignatureBase({ ...request, device, version });
	return isSignedBy(otium, device, version, text, signature);
}

/** A device as it is listed. */
export type ClientDevice = {
	id: string;
	siteId: string;
	name: string;
	enrolledBy: string;
	enrolledAt: number;
	seenAt: number | null;
	version: string | null;
	withdrawnAt: number | null;
};

/** The devices of all sites, those that hold first. */
export async function listClientDevices(db: Query): Promise<ClientDevice[]> {
	const rows = await db('client_device')
		.leftJoin('staff', 'staff.id', 'client_device.enrolled_by')
		.orderBy([{ column: 'client_device.withdrawn_at', nulls: 'first' }, 'client_device.name'])
		.select('client_device.*', 'staff.name as by_name');
	return rows.map((row) => ({
		id: row.id,
		siteId: row.site_id,
		name: row.name,
		enrolledBy: row.by_name ?? row.enrolled_by,
		enrolledAt: row.enrolled_at,
		seenAt: row.seen_at,
		version: row.version,
		withdrawnAt: row.withdrawn_at
	}));
}

/** From now on it proves nothing, and what it has open ends. Returns whether it held until now. */
export async function withdrawClientDevice(
	otium: Needs & Pick<House, 'lines'>,
	by: Actor,
	id: string
): Promise<boolean> {
	const now = otium.now();
	const changed = await transact(otium.db, async (trx) => {
		const row = await trx('client_device').where({ id }).whereNull('withdrawn_at').first('name');
		if (!row) return false;
		await trx('client_device').where({ id }).update({ withdrawn_at: now });
		await appendToLogbook(trx, [{ at: now, by, kind: 'client_withdrawn', body: { device: row.name, id } }]);
		return true;
	});
	known(otium.db).delete(id);
	otium.lines.end(heldBy.client(id));
	return changed;
}
