import { createHash, createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import { openSecret, perHouse, sealSecret, type Query } from '../db';

/** 256 random bits; only its hash is stored, so that a copied database opens no door. */
export function newToken(): string {
	return randomBytes(32).toString('base64url');
}

export function hashToken(token: string): string {
	return createHash('sha256').update(token).digest('base64url');
}

const secretOf = perHouse((): { value: string | null } => ({ value: null }));

/** The server's own key, made at first use and kept sealed in the database. */
async function serverKey(db: Query): Promise<string> {
	const secret = secretOf(db);
	if (secret.value) return secret.value;
	await db('meta')
		.insert({ key: 'server_key', value: sealSecret(db, newToken()) })
		.onConflict('key')
		.ignore();
	const row = (await db('meta').where({ key: 'server_key' }).first('value')) as { value: string };
	secret.value = openSecret(db, row.value)!;
	return secret.value;
}

/** A note that only this server can have written, readable until `expires`. */
export async function signNote(db: Query, note: Record<string, unknown>, expires: number): Promise<string> {
	return sealed(db, 'note', Buffer.from(JSON.stringify({ ...note, expires })).toString('base64url'));
}

/** What the note says; null when it is not ours, was changed, or has expired. */
export async function readNote(db: Query, signed: string, now: number): Promise<Record<string, unknown> | null> {
	const body = await unsealed(db, 'note', signed);
	if (body === null) return null;
	const note = JSON.parse(Buffer.from(body, 'base64url').toString());
	return note.expires > now ? note : null;
}

/** What a seal is for: one that was made for a note is worth nothing on a device. */
type Purpose = 'note' | 'device';

/** Letters of base64url with this server's seal behind them. */
export async function sealed(db: Query, purpose: Purpose, body: string): Promise<string> {
	return `${body}.${await seal(db, `${purpose} ${body}`)}`;
}

/** What was sealed; null when the seal is not ours, or another's. */
export async function unsealed(db: Query, purpose: Purpose, text: string): Promise<string | null> {
	const [body, mac, ...rest] = text.split('.');
	if (!body || !mac || rest.length > 0) return null;
	const right = Buffer.from(await seal(db, `${purpose} ${body}`));
	const given = Buffer.from(mac);
	return right.length === given.length && timingSafeEqual(right, given) ? body : null;
}

/** The key with which a device seals what it keeps of one sitting; the same for as long as it is bound. */
export async function paperKey(db: Query, sittingId: string, epoch: number): Promise<string> {
	return createHmac('sha256', await serverKey(db))
		.update(`paper ${sittingId} ${epoch}`)
		.digest('base64');
}

async function seal(db: Query, body: string): Promise<string> {
	return createHmac('sha256', await serverKey(db))
		.update(body)
		.digest('base64url');
}
