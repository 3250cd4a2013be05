import { hash, verify } from '@node-rs/argon2';
import { nanoid } from 'nanoid';
import type { HeldRole, StaffMember, StaffRole } from '$core/access';
import type { Actor } from '$core/sitting';
import { transact, type Query } from '../db';
import { appendToLogbook } from '../logbook';
import type { Otium } from '../otium';
import { hashToken, newToken } from './tokens';

const SIGNED_IN_FOR_MS = 14 * 3_600_000;
/** OWASP's parameters for argon2id: 19 MiB, two passes, one lane. */
const ARGON2ID = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

export async function addStaff(
	db: Query,
	person: { signIn: string; name: string; password: string; roles: HeldRole[] }
): Promise<string> {
	const id = nanoid();
	await db('staff').insert({
		id,
		sign_in: person.signIn.toLowerCase(),
		name: person.name,
		password_hash: await hash(person.password, ARGON2ID)
	});
	await db('staff_role').insert(person.roles.map(({ role, siteId }) => ({ staff_id: id, role, site_id: siteId })));
	return id;
}

export type SignIn = { ok: true; token: string; expires: number } | { ok: false; waitSeconds: number };

/** So that an unknown name takes as long as a wrong password. */
let decoy: string | null = null;

/** Signs in, or says how long to wait before the next try. What was wrong is not told. */
export async function signIn(otium: Otium, name: string, password: string, address: string): Promise<SignIn> {
	const now = otium.now();
	const target = `staff:${name.trim().toLowerCase()}`;
	const wait = await otium.limits.waitFor(target, address, now);
	if (wait > 0) return { ok: false, waitSeconds: wait };

	decoy ??= await hash(newToken(), ARGON2ID);
	const row = await otium.db('staff').where({ sign_in: name.trim().toLowerCase() }).first('id', 'password_hash');
	const right = await verify(row?.password_hash ?? decoy, password);
	if (!row || !right) {
		await otium.limits.missed(target, address, now);
		return { ok: false, waitSeconds: 0 };
	}
	await otium.limits.succeeded(target);
	const token = newToken();
	const expires = now + SIGNED_IN_FOR_MS;
	const coordinates = (await rolesOf(otium.db, row.id)).some((held) => held.role === 'coordinator');
	const by: Actor = { role: coordinates ? 'coordinator' : 'proctor', id: row.id };
	await transact(otium.db, async (trx) => {
		await trx('staff_session').where('expires_at', '<', now).delete();
		await trx('staff_session').insert({ token_hash: hashToken(token), staff_id: row.id, expires_at: expires });
		await appendToLogbook(trx, [{ at: now, by, kind: 'signed_in', body: { address } }]);
	});
	return { ok: true, token, expires };
}

export async function signOut(otium: Otium, token: string): Promise<void> {
	await otium
		.db('staff_session')
		.where({ token_hash: hashToken(token) })
		.delete();
}

/** Whoever holds this token; null when it is nobody's or has expired. */
export async function staffByToken(db: Query, token: string, now: number): Promise<StaffMember | null> {
	const row = await db('staff_session')
		.join('staff', 'staff.id', 'staff_session.staff_id')
		.where({ token_hash: hashToken(token) })
		.where('expires_at', '>', now)
		.first('staff.id', 'staff.name');
	return row ? { id: row.id, name: row.name, roles: await rolesOf(db, row.id) } : null;
}

async function rolesOf(db: Query, staffId: string): Promise<HeldRole[]> {
	const rows: { role: StaffRole; site_id: string | null }[] = await db('staff_role').where({ staff_id: staffId });
	return rows.map((row) => ({ role: row.role, siteId: row.site_id }));
}

/** As whom somebody acts at a site: the coordinator there, else the proctor. */
export function actorAt(staff: StaffMember, siteId: string): Actor {
	const coordinates = staff.roles.some(
		(held) => held.role === 'coordinator' && (held.siteId === null || held.siteId === siteId)
	);
	return { role: coordinates ? 'coordinator' : 'proctor', id: staff.id };
}
