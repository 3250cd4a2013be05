import { createHash, createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import { perHouse, type Query } from '../db';

/** 256 random bits; only its hash is stored, so that a copied database opens no door. */
export function newToken(): string {
	return randomBytes(32).toString('base64url');
}

export function hashToken(token: string): string {
	return createHash('sha256').update(token).digest('base64url');
}

const secretOf = perHouse((): { value: string | null } => ({ value: null }));

/** The server's own key, made at first use and kept in the database. */
async function serverKey(db: Query): Promise<string> {
	const secret = secretOf(db);
	if (secret.value) return secret.value;
	await db('meta').insert({ key: 'server_key', value: newToken() }).onConflict('key').ignore();
	const row = (await db('meta').where({ key: 'server_key' }).first('value')) as { value: string };
	secret.value = row.value;
	return row.value;
}

/** A note that only this server can have written, readable until `expires`. */
export async function signNote(db: Query, note: Record<string, unknown>, expires: number): Promise<string> {
	const body = Buffer.from(JSON.stringify({ ...note, expires })).toString('base64url');
	return `${body}.${await seal(db, body)}`;
}

/** What the note says; null when it is not ours, was changed, or has expired. */
export async function readNote(db: Query, signed: string, now: number): Promise<Record<string, unknown> | null> {
	const [body, mac] = signed.split('.');
	if (!body || !mac) return null;
	const right = Buffer.from(await seal(db, body));
	const given = Buffer.from(mac);
	if (right.length !== given.length || !timingSafeEqual(right, given)) return null;
	const note = JSON.parse(Buffer.from(body, 'base64url').toString());
	return note.expires > now ? note : null;
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
