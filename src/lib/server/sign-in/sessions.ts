import { nanoid } from 'nanoid';
import {
	awaited,
	browserName,
	CONFIRMED_FOR_MS,
	type Awaited,
	type HeldRole,
	type StaffMember,
	type StaffRole
} from '$core/access';
import type { Actor } from '$core/sitting';
import { transact, writeIfPossible, type Query } from '../db';
import type { House } from '../house';
import { hashToken, newToken, noteBrowser } from '../identity';
import { heldBy } from '../lines';
import { appendToLogbook } from '../logbook';
import { signInRules } from './rules';

/** What this needs of the house. */
export type Needs = Pick<House, 'db' | 'now' | 'limits' | 'passwords' | 'lines'>;

/** Where a sign-in is asked for. */
export type From = {
	address: string;
	agent: string;
	/** By which the record knows the browser; none: it is not known. */
	browser?: string;
};

const SIGNED_IN_FOR_MS = 14 * 3_600_000;
/** How often it is written down that somebody was there. */
const SEEN_EVERY_MS = 60_000;

/** A sign-in that has been opened, with its token, which is told this once. */
export type Opened = { token: string; expires: number; awaits: Awaited | null };

/** Somebody's sign-in in one browser. */
export type StaffSession = {
	staff: StaffMember;
	/** What is still to be done before it holds; null: it holds. */
	awaits: Awaited | null;
	/** It was proved not long ago who is there. */
	isConfirmed: boolean;
	/** When it ends unless something is done, epoch ms. */
	idleUntil: number;
};

/** @param hasPassed the second step has been passed, or the first was as strong as both */
export async function openSession(otium: Needs, staffId: string, from: From, hasPassed: boolean): Promise<Opened> {
	const now = otium.now();
	const token = newToken();
	const expires = now + SIGNED_IN_FOR_MS;
	const awaits = await awaitedOf(otium.db, staffId, hasPassed);
	const by = await actorOf(otium.db, staffId);
	await transact(otium.db, async (trx) => {
		await trx('staff_session').where('expires_at', '<', now).delete();
		await trx('staff_session').insert({
			token_hash: hashToken(token),
			staff_id: staffId,
			expires_at: expires,
			id: nanoid(12),
			made_at: now,
			seen_at: now,
			confirmed_at: awaits === 'second' ? 0 : now,
			address: from.address,
			browser: browserName(from.agent),
			awaits
		});
		if (awaits !== 'second')
			await appendToLogbook(trx, [{ at: now, by, kind: 'signed_in', body: { address: from.address } }]);
		await noteBrowser(trx, staffId, from.browser ?? null, now);
	});
	return { token, expires, awaits };
}

async function awaitedOf(db: Query, staffId: string, hasPassed: boolean): Promise<Awaited | null> {
	const row = await db('staff').where({ id: staffId }).first('must_change', 'totp_secret');
	const passkey = await db('passkey').where({ staff_id: staffId }).first('id');
	const has = {
		secondStep: row.totp_secret !== null || passkey !== undefined,
		mustChange: Boolean(row.must_change),
		roles: await rolesOf(db, staffId)
	};
	return awaited(has, hasPassed, await signInRules(db));
}

/**
 * The step has been taken: what comes next, or nothing, and then the sign-in holds. Who is there is proved by the second
 * step, by a password or by setting one of them up; whose sign-in waits for nothing has proved nothing here.
 */
export async function goOn(otium: Needs, tokenHash: string): Promise<Awaited | null> {
	const now = otium.now();
	const row = await otium.db('staff_session').where({ token_hash: tokenHash }).first('staff_id', 'address', 'awaits');
	// Every step has been taken by now but those that are asked of the staff's own row.
	const [left, atFirst] = await Promise.all([
		awaitedOf(otium.db, row.staff_id, true),
		awaitedOf(otium.db, row.staff_id, false)
	]);
	const next = left ?? (atFirst === 'enrol' ? 'enrol' : null);
	const by = await actorOf(otium.db, row.staff_id);
	await transact(otium.db, async (trx) => {
		const proves = row.awaits !== null && { confirmed_at: now };
		await trx('staff_session')
			.where({ token_hash: tokenHash })
			.update({ awaits: next, ...proves });
		if (row.awaits === 'second')
			await appendToLogbook(trx, [
				{ at: now, by, kind: 'signed_in', body: { address: row.address, secondStep: true } }
			]);
	});
	return next;
}

type Row = {
	token_hash: string;
	staff_id: string;
	name: string;
	seen_at: number;
	confirmed_at: number;
	awaits: Awaited | null;
};

/** The sign-in that a token stands for; null when it is nobody's, is over, or nothing was done in it for too long. */
export async function staffByToken(
	otium: Pick<House, 'db' | 'now' | 'lines'>,
	token: string
): Promise<StaffSession | null> {
	const { db } = otium;
	const now = otium.now();
	const row: Row | undefined = await db('staff_session')
		.join('staff', 'staff.id', 'staff_session.staff_id')
		.where({ token_hash: hashToken(token) })
		.where('expires_at', '>', now)
		.first('token_hash', 'staff_id', 'staff.name', 'seen_at', 'confirmed_at', 'awaits');
	if (!row) return null;
	const idleMs = (await signInRules(db)).idleMinutes * 60_000;
	if (now - row.seen_at > idleMs) {
		await writeIfPossible(endSessions(otium, (query) => query.where({ token_hash: row.token_hash })));
		return null;
	}
	if (now - row.seen_at >= SEEN_EVERY_MS)
		await writeIfPossible(db('staff_session').where({ token_hash: row.token_hash }).update({ seen_at: now }));
	return {
		staff: { id: row.staff_id, name: row.name, roles: await rolesOf(db, row.staff_id) },
		awaits: row.awaits,
		isConfirmed: now - row.confirmed_at < CONFIRMED_FOR_MS,
		idleUntil: now + idleMs
	};
}

/** Whoever has a line open, as a live room has, is there. */
export async function noteWhoIsThere(otium: { db: Query; now: () => number; lines: { signIns: () => string[] } }) {
	const hashes = otium.lines.signIns();
	for (let i = 0; i < hashes.length; i += 500)
		await otium
			.db('staff_session')
			.whereIn('token_hash', hashes.slice(i, i + 500))
			.update({ seen_at: otium.now() });
}

/** It has been proved once more who is there. */
export async function confirmSession(otium: Needs, tokenHash: string): Promise<void> {
	await otium.db('staff_session').where({ token_hash: tokenHash }).update({ confirmed_at: otium.now() });
}

export async function signOut(otium: Pick<House, 'db' | 'lines'>, token: string): Promise<void> {
	await endSessions(otium, (query) => query.where({ token_hash: hashToken(token) }));
}

/** Ends sign-ins with all lines that hang on them. Returns how many. */
export async function endSessions(
	otium: Pick<House, 'db' | 'lines'>,
	narrow: (query: ReturnType<Query>) => void
): Promise<number> {
	const hashes: string[] = await otium.db('staff_session').modify(narrow).pluck('token_hash');
	await otium.db('staff_session').whereIn('token_hash', hashes).delete();
	for (const hash of hashes) otium.lines.end(heldBy.signIn(hash));
	return hashes.length;
}

/** A sign-in as its owner sees it. */
export type SessionLine = {
	id: string;
	browser: string;
	address: string;
	madeAt: number;
	seenAt: number;
	isHere: boolean;
};

export async function sessionsOf(db: Query, staffId: string, here: string): Promise<SessionLine[]> {
	const rows = await db('staff_session').where({ staff_id: staffId }).orderBy('seen_at', 'desc');
	return rows.map((row) => ({
		id: row.id,
		browser: row.browser,
		address: row.address,
		madeAt: row.made_at,
		seenAt: row.seen_at,
		isHere: row.token_hash === here
	}));
}

async function rolesOf(db: Query, staffId: string): Promise<HeldRole[]> {
	const rows: { role: StaffRole; site_id: string | null }[] = await db('staff_role').where({ staff_id: staffId });
	return rows.map((row) => ({ role: row.role, siteId: row.site_id }));
}

/** As whom somebody's own acts are told in the logbook. */
export async function actorOf(db: Query, staffId: string): Promise<Actor> {
	const coordinates = (await rolesOf(db, staffId)).some((held) => held.role === 'coordinator');
	return { role: coordinates ? 'coordinator' : 'proctor', id: staffId };
}
