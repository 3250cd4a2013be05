import { randomBytes } from 'node:crypto';
import { Secret, TOTP } from 'otpauth';
import { readDoorCode, showSlip, slipCodeFrom } from '$core/access';
import type { Actor } from '$core/sitting';
import { markOf, openSecret, sealSecret, transact, type Query } from '../db';
import { appendToLogbook } from '../logbook';
import { actorOf, endSessions, type Needs } from './sessions';

const ISSUER = 'Otium';
const PERIOD_S = 30;
/** A clock may be so many periods off (RFC 6238, 5.2). */
const WINDOW = 1;
const RECOVERY_CODES = 10;

/** What somebody has to pass a second step with. */
export type SecondSteps = { app: boolean; passkeys: number; recoveryCodes: number };

export async function secondStepsOf(db: Query, staffId: string): Promise<SecondSteps> {
	const row = await db('staff').where({ id: staffId }).first('totp_secret');
	const [{ passkeys }] = await db('passkey').where({ staff_id: staffId }).count('* as passkeys');
	const [{ codes }] = await db('recovery_code').where({ staff_id: staffId, used_at: null }).count('* as codes');
	return { app: row.totp_secret !== null, passkeys: Number(passkeys), recoveryCodes: Number(codes) };
}

/** Who of the staff has a second step. */
export async function whoHasSecondStep(db: Query): Promise<Set<string>> {
	const byApp: string[] = await db('staff').whereNotNull('totp_secret').pluck('id');
	const byPasskey: string[] = await db('passkey').distinct().pluck('staff_id');
	return new Set([...byApp, ...byPasskey]);
}

function totp(secret: string, label: string) {
	return new TOTP({ issuer: ISSUER, label, secret: Secret.fromBase32(secret), period: PERIOD_S, digits: 6 });
}

/** A key for an app that makes codes (RFC 6238); it counts once a code from it has been right. */
export async function offerApp(otium: Needs, staffId: string): Promise<{ secret: string; address: string }> {
	const secret = new Secret({ size: 20 }).base32;
	const row = await otium.db('staff').where({ id: staffId }).first('sign_in');
	await otium
		.db('staff')
		.where({ id: staffId })
		.update({ totp_pending: sealSecret(otium.db, secret) });
	return { secret, address: totp(secret, row.sign_in).toString() };
}

/** The first code from the app: from now on it is a second step. Returns whether it was right. */
export async function takeApp(otium: Needs, staffId: string, code: string): Promise<boolean> {
	const row = await otium.db('staff').where({ id: staffId }).first('totp_pending', 'sign_in');
	const secret = row.totp_pending && openSecret(otium.db, row.totp_pending);
	const period = secret ? periodOf(secret, code, otium.now()) : null;
	if (period === null) return false;
	await note(otium, staffId, 'second_step_added', 'app', {
		totp_secret: row.totp_pending,
		totp_pending: null,
		totp_used: period
	});
	return true;
}

export async function removeApp(otium: Needs, staffId: string): Promise<void> {
	await note(otium, staffId, 'second_step_removed', 'app', { totp_secret: null, totp_pending: null, totp_used: null });
}

async function note(otium: Needs, staffId: string, kind: string, what: string, change: object): Promise<void> {
	const by = await actorOf(otium.db, staffId);
	await transact(otium.db, async (trx) => {
		await trx('staff').where({ id: staffId }).update(change);
		await appendToLogbook(trx, [{ at: otium.now(), by, kind, body: { what } }]);
	});
}

/** Which period a code is of; null: of none near now. */
function periodOf(secret: string, code: string, now: number): number | null {
	const digits = code.replace(/\D/g, '');
	if (digits.length !== 6) return null;
	const delta = totp(secret, '').validate({ token: digits, timestamp: now, window: WINDOW });
	return delta === null ? null : Math.floor(now / 1_000 / PERIOD_S) + delta;
}

export type Passed = { ok: true } | { ok: false; waitSeconds: number };

/** A code from the app, or one of the recovery codes; each holds once. Counted before it is looked at. */
export async function passByCode(otium: Needs, staffId: string, code: string, address: string): Promise<Passed> {
	const counted = await otium.limits.consume('staff', `second ${staffId}`, address, otium.now());
	if (counted.wait > 0) return { ok: false, waitSeconds: counted.wait };
	const isRight = (await passByApp(otium, staffId, code)) || (await passByRecovery(otium, staffId, code));
	if (!isRight) return { ok: false, waitSeconds: 0 };
	await otium.limits.succeeded(counted);
	return { ok: true };
}

async function passByApp(otium: Needs, staffId: string, code: string): Promise<boolean> {
	const row = await otium.db('staff').where({ id: staffId }).first('totp_secret');
	const secret = row?.totp_secret && openSecret(otium.db, row.totp_secret);
	const period = secret ? periodOf(secret, code, otium.now()) : null;
	if (period === null) return false;
	// One statement: of two with the same code, one passes.
	const taken = await otium
		.db('staff')
		.where({ id: staffId })
		.where((query) => query.whereNull('totp_used').orWhere('totp_used', '<', period))
		.update({ totp_used: period });
	return taken === 1;
}

async function passByRecovery(otium: Needs, staffId: string, code: string): Promise<boolean> {
	const now = otium.now();
	const code_mark = markOf(otium.db, `recovery ${staffId} ${readDoorCode(code)}`);
	return transact(otium.db, async (trx) => {
		const taken = await trx('recovery_code')
			.where({ staff_id: staffId, code_mark, used_at: null })
			.update({ used_at: now });
		if (taken !== 1) return false;
		const by = await actorOf(trx, staffId);
		await appendToLogbook(trx, [{ at: now, by, kind: 'recovery_code_used', body: {} }]);
		return true;
	});
}

/** Ten codes for the day on which the phone is lost, told this once; earlier ones end. */
export async function newRecoveryCodes(otium: Needs, staffId: string): Promise<string[]> {
	const codes = Array.from({ length: RECOVERY_CODES }, () => slipCodeFrom(randomBytes(80)));
	const by = await actorOf(otium.db, staffId);
	await transact(otium.db, async (trx) => {
		await trx('recovery_code').where({ staff_id: staffId }).delete();
		await trx('recovery_code').insert(
			codes.map((code) => ({ staff_id: staffId, code_mark: markOf(trx, `recovery ${staffId} ${code}`) }))
		);
		await appendToLogbook(trx, [{ at: otium.now(), by, kind: 'recovery_codes_made', body: {} }]);
	});
	return codes.map(showSlip);
}

/** Everything that somebody has as a second step goes, as when their phone is lost; and so does every sign-in of theirs. */
export async function takeSecondStepsAway(otium: Needs, by: Actor, staffId: string): Promise<void> {
	await transact(otium.db, async (trx) => {
		await removeSecondSteps(trx, staffId);
		const { name } = await trx('staff').where({ id: staffId }).first('name');
		await appendToLogbook(trx, [{ at: otium.now(), by, kind: 'second_step_removed', body: { what: 'all', of: name } }]);
	});
	await endSessions(otium, (query) => query.where({ staff_id: staffId }));
}

export async function removeSecondSteps(trx: Query, staffId: string): Promise<void> {
	await trx('staff').where({ id: staffId }).update({ totp_secret: null, totp_pending: null, totp_used: null });
	await trx('passkey').where({ staff_id: staffId }).delete();
	await trx('recovery_code').where({ staff_id: staffId }).delete();
}
