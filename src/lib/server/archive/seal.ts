import { createHash, createPublicKey, sign, verify, type KeyObject } from 'node:crypto';
import type { Query } from '../db';
import { privateKey } from '../proof';

/** What a seal is for: one can't be taken for the other. */
export type Sealed = 'archive' | 'manifest' | 'addendum';

const HEADER = (what: Sealed) =>
	Buffer.from(JSON.stringify({ alg: 'EdDSA', typ: `otium-${what}` })).toString('base64url');
const PAYLOAD = (sha256: string) => Buffer.from(JSON.stringify({ sha256 })).toString('base64url');
/** An Ed25519 signature has 64 bytes. */
const SIGNATURE_LENGTH = 86;

/** The length of every seal of that kind. */
export function sealLength(what: Sealed): number {
	return HEADER(what).length + PAYLOAD('0'.repeat(64)).length + SIGNATURE_LENGTH + 2;
}

/** A JWS (RFC 7515) over a SHA-256, with EdDSA (RFC 8037). Equal contents have equal seals, byte by byte. */
export function sealOf(db: Query, what: Sealed, sha256: string): string {
	const text = `${HEADER(what)}.${PAYLOAD(sha256)}`;
	return `${text}.${sign(null, Buffer.from(text), privateKey(db)).toString('base64url')}`;
}

/** Whether a seal is exactly the one that this key gives to that SHA-256: no other spelling of it will do. */
export function isSealOf(key: KeyObject, what: Sealed, sha256: string, seal: string): boolean {
	const text = `${HEADER(what)}.${PAYLOAD(sha256)}`;
	if (!seal.startsWith(`${text}.`)) return false;
	const spelt = seal.slice(text.length + 1);
	const signature = Buffer.from(spelt, 'base64url');
	return signature.toString('base64url') === spelt && verify(null, Buffer.from(text), key, signature);
}

/** By which people compare keys: the SHA-256 of its PEM text, in hex. */
export const keyPrint = (pem: string) => createHash('sha256').update(pem).digest('hex');

/** The key of a PEM text; null: it is none. */
export function readKey(pem: string): KeyObject | null {
	try {
		return createPublicKey(pem);
	} catch {
		return null;
	}
}
