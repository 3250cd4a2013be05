import {
	createCipheriv,
	createDecipheriv,
	createHmac,
	createSecretKey,
	hkdfSync,
	randomBytes,
	type KeyObject
} from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Query } from './open';
import { perHouse } from './per-house';

/** Beside the database, for the account of the server alone, and in no backup that is not encrypted. */
export const KEY_FILE = 'house.key';
const BYTES = 32;

/** The database was written under another key than the one that is there. */
export class WrongHouseKey extends Error {
	override readonly name = 'WrongHouseKey';
	readonly code = 'wrong_house_key';
	constructor() {
		super(
			`The key of this house does not open this database. Put back the ${KEY_FILE} that belongs to it, or set OTIUM_KEY to it.`
		);
	}
}

/**
 * The key of the house, 256 bits: from the environment (`OTIUM_KEY`, base64url), or from a file in the data folder.
 * @param make whether to make one where there is none
 */
export function readHouseKey(dataDir: string, make: boolean): Buffer | null {
	const given = process.env.OTIUM_KEY;
	const file = join(dataDir, KEY_FILE);
	if (!given && !existsSync(file)) {
		if (!make) return null;
		// Flushed: a database whose key did not outlive a power cut is opened by nobody.
		writeFileSync(file, `${randomBytes(BYTES).toString('base64url')}\n`, { mode: 0o600, flag: 'wx', flush: true });
	}
	const key = Buffer.from((given ?? readFileSync(file, 'utf8')).trim(), 'base64url');
	if (key.length !== BYTES)
		throw new Error(
			`${given ? 'OTIUM_KEY' : file} is not a key: it takes 32 bytes in base64url, 43 letters and digits.`
		);
	return key;
}

/** Made ready for use once: doing so again for each HMAC takes a quarter of its time. */
type Held = { key: Buffer | null; purposes: Map<Purpose, KeyObject> };
const held = perHouse((): Held => ({ key: null, purposes: new Map() }));

/** What is derived from the house's key, each for one thing only. */
type Purpose = 'secrets' | 'marks' | 'logbook' | 'answers' | 'anchor' | 'receipts' | 'rows';

export function holdHouseKey(db: Query, key: Buffer | null): void {
	held(db).key = key;
}

/** The key for one purpose (HKDF with SHA-256, RFC 5869). @throws WrongHouseKey when the house has none */
export function keyFor(db: Query, purpose: Purpose): KeyObject {
	const { key, purposes } = held(db);
	if (key === null) throw new WrongHouseKey();
	const known = purposes.get(purpose);
	if (known) return known;
	const derived = createSecretKey(Buffer.from(hkdfSync('sha256', key, '', `otium ${purpose}`, BYTES)));
	purposes.set(purpose, derived);
	return derived;
}

/** HMAC-SHA-256 (RFC 2104) of a text for one purpose, in base64url. */
export function macOf(db: Query, purpose: Purpose, text: string): string {
	return createHmac('sha256', keyFor(db, purpose)).update(text).digest('base64url');
}

const SEALED = 'sealed:';
const IV_BYTES = 12;
const TAG_BYTES = 16;

/** A secret as it lies in the database: AES-256-GCM (NIST SP 800-38D), with a fresh number each time. */
export function sealSecret(db: Query, secret: string): string {
	const iv = randomBytes(IV_BYTES);
	const cipher = createCipheriv('aes-256-gcm', keyFor(db, 'secrets'), iv);
	const sealed = Buffer.concat([iv, cipher.update(secret, 'utf8'), cipher.final(), cipher.getAuthTag()]);
	return SEALED + sealed.toString('base64url');
}

/** The secret; null when it was sealed under another key or changed. What was never sealed is as it is. */
export function openSecret(db: Query, text: string): string | null {
	if (!text.startsWith(SEALED)) return text;
	const bytes = Buffer.from(text.slice(SEALED.length), 'base64url');
	try {
		const decipher = createDecipheriv('aes-256-gcm', keyFor(db, 'secrets'), bytes.subarray(0, IV_BYTES));
		decipher.setAuthTag(bytes.subarray(-TAG_BYTES));
		const secret = decipher.update(bytes.subarray(IV_BYTES, -TAG_BYTES));
		return Buffer.concat([secret, decipher.final()]).toString('utf8');
	} catch (error) {
		if (error instanceof WrongHouseKey) throw error;
		return null;
	}
}

/** By what a sealed code is found again without opening them all. */
export function markOf(db: Query, code: string): string {
	return macOf(db, 'marks', code);
}
