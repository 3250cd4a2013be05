import { createPublicKey, type KeyObject } from 'node:crypto';

/** A public key as it is kept and sent: SPKI (RFC 5280), DER in base64url. Throws where it is none. */
export function publicKeyOf(text: string): KeyObject {
	return createPublicKey({ key: Buffer.from(text, 'base64url'), format: 'der', type: 'spki' });
}
