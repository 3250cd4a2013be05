import { nanoid } from 'nanoid';
import type { HeldRole, StaffMember, StaffRole } from '$core/access';
import type { Actor } from '$core/sitting';
import { transact, type Query } from '../db';
import { heldBy } from '../lines';
import { appendToLogbook } from '../logbook';
import type { House } from '../house';
import { Passwords } from './passwords';
import { newToken } from './tokens';

/** What this needs of the house. */
type Needs = Pick<House, 'db' | 'now' | 'limits' | 'passwords' | 'lines'>;

/** @param person `mustChange`: the password is given by somebody else, and changed at the first sign-in */
export async function addStaff(
	db: Query,
	person: { signIn: string; name: string; password: string; roles: HeldRole[]; email?: string; mustChange?: boolean },
	passwords = new Passwords()
): Promise<string> {
	const id = nanoid();
	await db('staff').insert({
		id,
		sign_in: person.signIn.toLowerCase(),
		name: person.name,
		email: person.email ?? null,
		password_hash: await passwords.hash(person.password),
		must_change: person.mustChange ?? false
	});
	await db('staff_role').insert(person.roles.map(({ role, siteId }) => ({ staff_id: id, role, site_id: siteId })));
	return id;
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

/** Links to a new password that are still good for somebody end. Returns whether there were any. */
export async function endLinks(trx: Query, staffId: string): Promise<boolean> {
	return (await trx('password_link').where({ staff_id: staffId }).delete()) > 0;
}

export type StaffChange = {
	/** null: somebody new. */
	id: string | null;
	name: string;
	signIn: string;
	email: string | null;
	/** null: as it is; somebody new chooses it by a link. */
	password: string | null;
	roles: HeldRole[];
};
/** `endsLink`: a link to choose a password was still good for them, and is no more. */
export type StaffResult = { ok: true; id: string; endsLink: boolean } | { ok: false; message: string };

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
	const passwordHash =
		change.password === null && change.id !== null
			? null
			: // Nobody knows it who is to choose one by a link.
				await otium.passwords.hash(change.password ?? newToken());
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
		// A link was sent to that address, for what that person could do then: with any of it, it ends.
		const isStale = change.id !== null && (passwordHash !== null || (await isAnother(trx, change.id, change)));
		const endsLink = isStale && (await endLinks(trx, id));
		if (change.id === null)
			await trx('staff').insert({ id, ...columns, password_hash: passwordHash!, must_change: true });
		else
			await trx('staff')
				.where({ id })
				.update({ ...columns, ...(passwordHash ? { password_hash: passwordHash, must_change: !isOwn } : {}) });
		await trx('staff_role').where({ staff_id: id }).delete();
		if (change.roles.length > 0)
			await trx('staff_role').insert(change.roles.map(({ role, siteId }) => ({ staff_id: id, role, site_id: siteId })));
		if (!isOwn || passwordHash) {
			const others = trx('staff_session').where({ staff_id: id });
			if (isOwn && here) others.whereNot({ token_hash: here });
			ended.push(...(await others.clone().pluck('token_hash')));
			await others.delete();
		}
		const body = {
			name: change.name,
			roles: change.roles.map((held) => held.role),
			password: change.password !== null
		};
		await appendToLogbook(trx, [
			{ at: otium.now(), by, kind: change.id === null ? 'staff_added' : 'staff_changed', body }
		]);
		return { ok: true, id, endsLink };
	});
	for (const token of ended) otium.lines.end(heldBy.signIn(token));
	return result;
}

/** Whether an address, a sign-in name or a role changes. */
async function isAnother(trx: Query, id: string, { email, signIn, roles }: StaffChange): Promise<boolean> {
	const row = await trx('staff').where({ id }).first('email', 'sign_in');
	const held: { role: StaffRole; site_id: string | null }[] = await trx('staff_role').where({ staff_id: id });
	const keys = (all: HeldRole[]) =>
		all
			.map((one) => `${one.role} ${one.siteId}`)
			.sort()
			.join();
	const before = held.map(({ role, site_id: siteId }) => ({ role, siteId }));
	return row?.email !== email || row?.sign_in !== signIn.toLowerCase() || keys(before) !== keys(roles);
}
