import type { Query } from '../db';
import { hashToken, newToken, sealed, unsealed } from './tokens';

/**
 * What makes a device known again: 256 bits that this server has drawn, with its seal. Only the device has them; what the
 * record holds of a device is their hash, with which nobody can pass for it.
 */
export async function newDeviceSecret(db: Query): Promise<string> {
	return sealed(db, 'device', newToken());
}

/**
 * By which name the record knows the device that sent this; null: no secret of ours.
 * @param publicKey of the key with which it signs; the same secret with another key is another device
 */
export async function deviceOf(db: Query, sent: string | undefined, publicKey: string | null): Promise<string | null> {
	const secret = sent === undefined ? null : await unsealed(db, 'device', sent);
	if (secret === null) return null;
	return hashToken(publicKey === null ? secret : `${secret} ${publicKey}`);
}
