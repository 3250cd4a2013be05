import { perHouse, type Query } from '../db';
import type { House } from '../house';
import { heldBy } from '../lines';
import { loadSitting } from '../sitting';
import { hashToken, newToken } from './tokens';
import { latest } from '../latest';

/** A device on which a candidate is signed in. */
export type SignedIn = { token: string; expires: number; sittingId: string; epoch: number };

/**
 * A token for the device that a sitting is bound to; null: this is not that device. It is asked here and each time, whatever
 * was decided about the device a moment ago.
 */
export async function signInDevice(
	otium: Pick<House, 'db' | 'now' | 'presence'>,
	sittingId: string,
	deviceId: string,
	/** Of the key with which it signs; null: its browser can't. */
	publicKey: string | null
): Promise<SignedIn | null> {
	const now = otium.now();
	const { sitting } = (await loadSitting(otium.db, sittingId, now))!;
	if (sitting.device?.id !== deviceId) return null;
	const { epoch } = sitting;
	const token = newToken();
	const expires = now + 24 * 3_600_000;
	await otium.db('device').insert({
		token_hash: hashToken(token),
		sitting_id: sittingId,
		epoch,
		public_key: publicKey,
		expires_at: expires
	});
	// Arriving has just told the sitting that its line is up: only what was lost before has to be written.
	if (sitting.line?.up) otium.presence.bound(sittingId);
	else otium.presence.seen(sittingId);
	return { token, expires, sittingId, epoch };
}

/** Whose token it is; `publicKey`: of the key with which it signs, null: it can't. */
export type KnownDevice = { sittingId: string; epoch: number; publicKey: string | null };
type Bound = KnownDevice & { expires: number };
/** Tokens are never changed once made, so what one stands for is read once. */
const tokensOf = perHouse(() => latest<Bound>(20_000));

/** The sitting and device that a token stands for; null when it is nobody's or has expired. */
export async function deviceByToken(db: Query, token: string, now: number): Promise<KnownDevice | null> {
	const key = hashToken(token);
	const known = tokensOf(db);
	let device = known.get(key);
	if (!device) {
		const row = await db('device').where({ token_hash: key }).first();
		if (!row) return null;
		device = { sittingId: row.sitting_id, epoch: row.epoch, publicKey: row.public_key, expires: row.expires_at };
		known.set(key, device);
	}
	return device.expires > now ? device : null;
}

/** Ends what a token stands for: whoever has it can do nothing more with it. The sitting stays as it is. */
export async function signOutDevice(otium: Pick<House, 'db' | 'lines'>, token: string): Promise<void> {
	const key = hashToken(token);
	await otium.db('device').where({ token_hash: key }).delete();
	tokensOf(otium.db).delete(key);
	otium.lines.end(heldBy.signIn(key));
}
