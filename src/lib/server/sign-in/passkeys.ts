import type {
	AuthenticationResponseJSON,
	PublicKeyCredentialCreationOptionsJSON,
	PublicKeyCredentialRequestOptionsJSON,
	RegistrationResponseJSON
} from '@simplewebauthn/server';
import { LRUCache } from 'lru-cache';
import { nanoid } from 'nanoid';
import { perHouse, transact, type Query } from '../db';
import { appendToLogbook } from '../logbook';
import { actorOf, type Needs } from './sessions';

/** Read when somebody first needs it, so that a server that is started again does not wait for it. */
const webAuthn = () => import('@simplewebauthn/server');

const NAME = 'Otium';
const ASKED_FOR_MS = 5 * 60_000;

/** For which a challenge was given; it is answered once. `staffId` null: whoever has a passkey here. */
type Asked = { challenge: string; staffId: string | null; until: number };
const asked = perHouse(() => new LRUCache<string, Asked>({ max: 5_000 }));

export type Passkey = { id: string; name: string; madeAt: number; usedAt: number | null };
type Row = {
	id: string;
	staff_id: string;
	public_key: string;
	counter: number;
	transports: string;
};

export async function passkeysOf(db: Query, staffId: string): Promise<Passkey[]> {
	const rows = await db('passkey').where({ staff_id: staffId }).orderBy('made_at');
	return rows.map((row) => ({ id: row.id, name: row.name, madeAt: row.made_at, usedAt: row.used_at }));
}

function keep(otium: Needs, challenge: string, staffId: string | null): string {
	const id = nanoid();
	asked(otium.db).set(id, { challenge, staffId, until: otium.now() + ASKED_FOR_MS });
	return id;
}

function take(otium: Needs, id: string): Asked | null {
	const one = asked(otium.db).get(id);
	asked(otium.db).delete(id);
	return one && one.until > otium.now() ? one : null;
}

export type AskedToMake = { id: string; options: PublicKeyCredentialCreationOptionsJSON };

/** What a browser needs to make a passkey for somebody (Web Authentication, level 3). */
export async function askToMake(otium: Needs, staffId: string, url: URL): Promise<AskedToMake> {
	const staff = await otium.db('staff').where({ id: staffId }).first('sign_in', 'name');
	const own: Row[] = await otium.db('passkey').where({ staff_id: staffId });
	const { generateRegistrationOptions } = await webAuthn();
	const options = await generateRegistrationOptions({
		rpName: NAME,
		rpID: url.hostname,
		userName: staff.sign_in,
		userDisplayName: staff.name,
		userID: new TextEncoder().encode(staffId),
		attestationType: 'none',
		excludeCredentials: own.map((row) => ({ id: row.id, transports: JSON.parse(row.transports) })),
		authenticatorSelection: { residentKey: 'preferred', userVerification: 'required' }
	});
	return { id: keep(otium, options.challenge, staffId), options };
}

/** Takes over the passkey that was made. Returns whether it was. */
export async function takePasskey(
	otium: Needs,
	staffId: string,
	id: string,
	response: RegistrationResponseJSON,
	name: string,
	url: URL
): Promise<boolean> {
	const one = take(otium, id);
	if (one?.staffId !== staffId) return false;
	const { verifyRegistrationResponse } = await webAuthn();
	const checked = await verifyRegistrationResponse({
		response,
		expectedChallenge: one.challenge,
		expectedOrigin: url.origin,
		expectedRPID: url.hostname,
		requireUserVerification: true
	}).catch(() => null);
	if (!checked?.verified) return false;
	const { credential } = checked.registrationInfo;
	const now = otium.now();
	const by = await actorOf(otium.db, staffId);
	await transact(otium.db, async (trx) => {
		await trx('passkey').insert({
			id: credential.id,
			staff_id: staffId,
			name,
			public_key: Buffer.from(credential.publicKey).toString('base64url'),
			counter: credential.counter,
			transports: JSON.stringify(credential.transports ?? []),
			made_at: now
		});
		await appendToLogbook(trx, [{ at: now, by, kind: 'second_step_added', body: { what: 'passkey', name } }]);
	});
	return true;
}

export async function removePasskey(otium: Needs, staffId: string, id: string): Promise<boolean> {
	const by = await actorOf(otium.db, staffId);
	return transact(otium.db, async (trx) => {
		const row = await trx('passkey').where({ id, staff_id: staffId }).first('name');
		if (!row) return false;
		await trx('passkey').where({ id, staff_id: staffId }).delete();
		const body = { what: 'passkey', name: row.name };
		await appendToLogbook(trx, [{ at: otium.now(), by, kind: 'second_step_removed', body }]);
		return true;
	});
}

export type AskedToUse = { id: string; options: PublicKeyCredentialRequestOptionsJSON };

/** What a browser needs to show that it has a passkey. @param staffId null: of anybody */
export async function askToUse(otium: Needs, staffId: string | null, url: URL): Promise<AskedToUse> {
	const own: Row[] = staffId === null ? [] : await otium.db('passkey').where({ staff_id: staffId });
	const { generateAuthenticationOptions } = await webAuthn();
	const options = await generateAuthenticationOptions({
		rpID: url.hostname,
		userVerification: 'required',
		allowCredentials: own.map((row) => ({ id: row.id, transports: JSON.parse(row.transports) }))
	});
	return { id: keep(otium, options.challenge, staffId), options };
}

/** Who has shown a passkey of theirs; null: nobody has. */
export async function whoUsed(
	otium: Needs,
	id: string,
	response: AuthenticationResponseJSON,
	url: URL
): Promise<string | null> {
	const one = take(otium, id);
	const row: Row | undefined = await otium.db('passkey').where({ id: response.id }).first();
	if (!one || !row || (one.staffId !== null && one.staffId !== row.staff_id)) return null;
	const { verifyAuthenticationResponse } = await webAuthn();
	const checked = await verifyAuthenticationResponse({
		response,
		expectedChallenge: one.challenge,
		expectedOrigin: url.origin,
		expectedRPID: url.hostname,
		requireUserVerification: true,
		credential: {
			id: row.id,
			publicKey: new Uint8Array(Buffer.from(row.public_key, 'base64url')),
			counter: row.counter,
			transports: JSON.parse(row.transports)
		}
	}).catch(() => null);
	if (!checked?.verified) return null;
	await otium
		.db('passkey')
		.where({ id: row.id })
		.update({ counter: checked.authenticationInfo.newCounter, used_at: otium.now() });
	return row.staff_id;
}
