import { nanoid } from 'nanoid';
import type { HeldRole, StaffMember, StaffRole } from '$core/access';
import type { Actor } from '$core/sitting';
import { transact, type Query } from '../db';
import { heldBy } from '../lines';
import { appendToLogbook } from '../logbook';
import type { House } from '../house';
import { Passwords } from './passwords';
import { hashToken, newToken, readNote, signNote } from './tokens';

/** What this needs of the house. */
type Needs = Pick<House, 'db' | 'now' | 'limits' | 'passwords' | 'lines'>;

const SIGNED_IN_FOR_MS = 14 * 3_600_000;
const KNOWN_FOR_MS = 180 * 24 * 3_600_000;
/** Wrong passwords in a row that the logbook tells of, gathered. */
const TOLD_AT = [5, 25, 100];

export async function addStaff(
	db: Query,
	person: { signIn: string; name: string; password: string; roles: HeldRole[]; email?: string },
	passwords = new Passwords()
): Promise<string> {
	const id = nanoid();
	await db('staff').insert({
		id,
		sign_in: person.signIn.toLowerCase(),
		name: person.name,
		email: person.email ?? null,
		password_hash: await passwords.hash(person.password)
	});
	await db('staff_role').insert(person.roles.map(({ role, siteId }) => ({ staff_id: id, role, site_id: siteId })));
	return id;
}

/** `known`: lets this browser go on when strangers have tried the same name too often, until `knownUntil`. */
export type SignIn =
	{ ok: true; token: string; expires: number; known: string; knownUntil: number } | { ok: false; waitSeconds: number };

/** Signs in, or says how long to wait before the next try. What was wrong is not told. */
export async function signIn(
	otium: Needs,
	name: string,
	password: string,
	address: string,
	/** What an earlier sign-in of this name left in this browser. */
	known: string | null = null
): Promise<SignIn> {
	const now = otium.now();
	const typed = name.trim().toLowerCase();
	const isKnown = known !== null && (await readNote(otium.db, known, now))?.signIn === typed;
	if (otium.passwords.isFull) return { ok: false, waitSeconds: 2 };
	// Counted before comparing, and given back when it was right: tries that come all at once are counted like any others.
	const counted = await otium.limits.consume('staff', typed, address, now, { isKnown });
	if (counted.wait > 0) return { ok: false, waitSeconds: counted.wait };

	const row = await otium.db('staff').where({ sign_in: typed }).first('id', 'password_hash');
	if (!(await otium.passwords.isRight(row?.password_hash ?? null, password))) {
		if (row && TOLD_AT.includes(counted.misses)) await noteMisses(otium, row.id, counted.misses, address);
		await otium.limits.missed('staff', address);
		return { ok: false, waitSeconds: 0 };
	}
	await otium.limits.succeeded(counted);
	const token = newToken();
	const expires = now + SIGNED_IN_FOR_MS;
	const coordinates = (await rolesOf(otium.db, row.id)).some((held) => held.role === 'coordinator');
	const by: Actor = { role: coordinates ? 'coordinator' : 'proctor', id: row.id };
	await transact(otium.db, async (trx) => {
		await trx('staff_session').where('expires_at', '<', now).delete();
		await trx('staff_session').insert({ token_hash: hashToken(token), staff_id: row.id, expires_at: expires });
		await appendToLogbook(trx, [{ at: now, by, kind: 'signed_in', body: { address } }]);
	});
	const knownUntil = now + KNOWN_FOR_MS;
	return { ok: true, token, expires, known: await signNote(otium.db, { signIn: typed }, knownUntil), knownUntil };
}

async function noteMisses(otium: Needs, staffId: string, misses: number, address: string): Promise<void> {
	const by: Actor = { role: 'system', id: 'sign-in' };
	const body = { staff: staffId, misses, address };
	await transact(otium.db, (trx) => appendToLogbook(trx, [{ at: otium.now(), by, kind: 'sign_in_failed', body }]));
}

export async function signOut(otium: Needs, token: string): Promise<void> {
	const token_hash = hashToken(token);
	await otium.db('staff_session').where({ token_hash }).delete();
	otium.lines.end(heldBy.signIn(token_hash));
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

/** Somebody of the staff, as the page of staff shows them. */
export type StaffRow = { id: string; name: string; signIn: string; email: string | null; roles: HeldRole[] };

export async function listStaff(db: Query): Promise<StaffRow[]> {
	const rows: { id: string; name: string; sign_in: string; email: string | null }[] = await db('staff')
		.orderBy('name')
		.select('id', 'name', 'sign_in', 'email');
	const roles: { staff_id: string; role: StaffRole; site_id: string | null }[] = await db('staff_role');
	return rows.map((row) => ({
		id: row.id,
		name: row.name,
		signIn: row.sign_in,
		email: row.email,
		roles: roles.filter((one) => one.staff_id === row.id).map((one) => ({ role: one.role, siteId: one.site_id }))
	}));
}

export type StaffChange = {
	/** null: somebody new, who needs a password. */
	id: string | null;
	name: string;
	signIn: string;
	email: string | null;
	password: string | null;
	roles: HeldRole[];
};
export type StaffResult = { ok: true; id: string } | { ok: false; message: string };

/**
 * Adds somebody, or changes what they may do. They are signed out, so that what they lose ends at once; whoever changes
 * their own password stays signed in here, and nowhere else.
 * @param here the sign-in by which it is asked
 */
export async function saveStaff(
	otium: Needs,
	by: Actor,
	change: StaffChange,
	here: string | null = null
): Promise<StaffResult> {
	const passwordHash = change.password === null ? null : await otium.passwords.hash(change.password);
	const ended: string[] = [];
	const result = await transact(otium.db, async (trx): Promise<StaffResult> => {
		const signIn = change.signIn.toLowerCase();
		const namesake = await trx('staff')
			.where({ sign_in: signIn })
			.whereNot({ id: change.id ?? '' })
			.first('name');
		if (namesake) return { ok: false, message: `${namesake.name} signs in as “${signIn}” already. Choose another.` };
		const isOwn = change.id === by.id;
		if (isOwn && !change.roles.some((held) => held.role === 'coordinator'))
			return { ok: false, message: 'You would shut yourself out. Ask another coordinator to change your own roles.' };
		const id = change.id ?? nanoid();
		const columns = { name: change.name, sign_in: signIn, email: change.email };
		if (change.id === null) await trx('staff').insert({ id, ...columns, password_hash: passwordHash! });
		else
			await trx('staff')
				.where({ id })
				.update({ ...columns, ...(passwordHash ? { password_hash: passwordHash } : {}) });
		await trx('staff_role').where({ staff_id: id }).delete();
		if (change.roles.length > 0)
			await trx('staff_role').insert(change.roles.map(({ role, siteId }) => ({ staff_id: id, role, site_id: siteId })));
		if (!isOwn || passwordHash) {
			const others = trx('staff_session').where({ staff_id: id });
			if (isOwn && here) others.whereNot({ token_hash: here });
			ended.push(...(await others.clone().pluck('token_hash')));
			await others.delete();
		}
		const body = { name: change.name, roles: change.roles.map((held) => held.role), password: passwordHash !== null };
		await appendToLogbook(trx, [
			{ at: otium.now(), by, kind: change.id === null ? 'staff_added' : 'staff_changed', body }
		]);
		return { ok: true, id };
	});
	for (const token of ended) otium.lines.end(heldBy.signIn(token));
	return result;
}
