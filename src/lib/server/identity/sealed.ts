import { createHmac, timingSafeEqual } from 'node:crypto';
import { nanoid } from 'nanoid';
import type { ProvenClient } from '$core/access';
import type { Actor } from '$core/sitting';
import { openSecret, sealSecret, transact, type Query } from '../db';
import { appendToLogbook } from '../logbook';
import type { House } from '../house';
import { newToken, readNote, signNote } from './tokens';

/** What this needs of the house. */
type Needs = Pick<House, 'db' | 'now' | 'limits'>;

/** A challenge is answered at once or not at all. */
const CHALLENGE_MS = 60_000;
/** A proof holds so long; the client proves itself anew while it runs, so a proof that was copied is soon worth nothing. */
const PROOF_MS = 3 * 60_000;

/** Makes a nonce that can be answered once. */
export async function makeChallenge(otium: Needs): Promise<{ nonce: string; expires: number }> {
	const now = otium.now();
	const nonce = newToken();
	const expires = now + CHALLENGE_MS;
	await otium
		.db('client_challenge')
		.where('expires_at', '<', now - CHALLENGE_MS)
		.delete();
	await otium.db('client_challenge').insert({ nonce, expires_at: expires });
	return { nonce, expires };
}

/** What a client with this key answers: HMAC-SHA-256 (RFC 2104) of the nonce and its version, as hexadecimal digits. */
export function proofOf(secret: string, nonce: string, version: string): string {
	return createHmac('sha256', secret).update(`${nonce}.${version}`).digest('hex');
}

export type Answered = { nonce: string; keyId: string; version: string; proof: string; address: string };
export type Proved = { ok: true; note: string; expires: number } | { ok: false; message: string; instead: string };

/**
 * Takes the answer to a challenge. The nonce is used up whatever the answer is. The note that comes back holds for the
 * address that it was given to, for minutes.
 */
export async function proveClient(otium: Needs, answer: Answered): Promise<Proved> {
	const now = otium.now();
	const used = await otium
		.db('client_challenge')
		.where({ nonce: answer.nonce })
		.whereNull('used_at')
		.where('expires_at', '>', now)
		.update({ used_at: now });
	if (used === 0)
		return { ok: false, message: 'This challenge was used or has expired.', instead: 'Ask for a new one.' };
	const key = await otium
		.db('site_key')
		.where({ id: answer.keyId })
		.whereNull('withdrawn_at')
		.first('site_id', 'secret');
	const right = proofOf((key && openSecret(otium.db, key.secret)) ?? '', answer.nonce, answer.version);
	const isRight = key !== undefined && sameText(right, answer.proof);
	if (!isRight)
		return {
			ok: false,
			message: 'The sealed client could not prove itself.',
			instead:
				'Its key is not one of this site’s, or was withdrawn. Whoever looks after the devices puts the new key in.'
		};
	const expires = now + PROOF_MS;
	const note = await signNote(
		otium.db,
		{ client: true, siteId: key.site_id, version: answer.version, address: answer.address },
		expires
	);
	return { ok: true, note, expires };
}

function sameText(a: string, b: string): boolean {
	const [x, y] = [Buffer.from(a), Buffer.from(b)];
	return x.length === y.length && timingSafeEqual(x, y);
}

/** The client that a note stands for, when it comes from where it was given. */
export async function readClientNote(otium: Needs, note: string, address: string): Promise<ProvenClient | null> {
	const read = await readNote(otium.db, note, otium.now());
	if (!read?.client || read.address !== address) return null;
	return { siteId: read.siteId as string, version: read.version as string };
}

/** A site's key as it may be shown: never its secret. */
export type SiteKey = { id: string; siteId: string; site: string; madeAt: number; withdrawnAt: number | null };

export async function listSiteKeys(db: Query): Promise<SiteKey[]> {
	const rows: { id: string; site_id: string; site: string; made_at: number; withdrawn_at: number | null }[] = await db(
		'site_key'
	)
		.join('site', 'site.id', 'site_key.site_id')
		.orderBy('made_at', 'desc')
		.select('site_key.id', 'site_id', 'site.name as site', 'made_at', 'withdrawn_at');
	return rows.map((row) => ({
		id: row.id,
		siteId: row.site_id,
		site: row.site,
		madeAt: row.made_at,
		withdrawnAt: row.withdrawn_at
	}));
}

/**
 * Makes a key for a site and returns it whole, the only time that it is shown. Older ones go on holding until they are
 * withdrawn, so that devices can be changed over one by one.
 */
export async function makeSiteKey(otium: Needs, by: Actor, siteId: string): Promise<string> {
	const id = nanoid(10);
	const secret = newToken();
	const now = otium.now();
	await transact(otium.db, async (trx) => {
		await trx('site_key').insert({ id, site_id: siteId, secret: sealSecret(trx, secret), made_at: now });
		await appendToLogbook(trx, [{ at: now, by, kind: 'site_key_made', body: { site: siteId, key: id } }]);
	});
	return `${id}.${secret}`;
}

/** From now on nothing is proved with it; a proof that was given holds out its minutes. */
export async function withdrawSiteKey(otium: Needs, by: Actor, id: string): Promise<boolean> {
	const now = otium.now();
	return transact(otium.db, async (trx) => {
		const changed = await trx('site_key').where({ id }).whereNull('withdrawn_at').update({ withdrawn_at: now });
		if (changed === 1) await appendToLogbook(trx, [{ at: now, by, kind: 'site_key_withdrawn', body: { key: id } }]);
		return changed === 1;
	});
}
