import type {
	AuthenticationResponseJSON,
	PublicKeyCredentialCreationOptionsJSON,
	PublicKeyCredentialRequestOptionsJSON,
	RegistrationResponseJSON
} from '@simplewebauthn/server';
import { nanoid } from 'nanoid';
import { perHouse, transact, type Query } from '../db';
import { appendToLogbook } from '../logbook';
import { actorOf, type Needs } from './sessions';
import { latest } from '../latest';

/** Read when somebody first needs it, so that a server that is started again does not wait for it. */
const webAuthn = () => import('@simplewebauthn/server');

const NAME = 'Otium';
const ASKED_FOR_MS = 5 * 60_000;

/**
 * Who asks, and what the answer will be good for. A challenge is answered once, by whoever asked for it, and for that alone:
 * one that was asked for by a browser that is signed out is no second step of a sign-in.
 */
export type Asking = {
	act: 'make' | 'sign_in' | 'second' | 'confirm';
	/** Whose passkey it has to be; null: of anybody. */
	staffId: string | null;
	/** The hash of the sign-in's token; null: whoever asks is signed out. */
	signIn: string | null;
};
type Asked = Asking & { challenge: string; until: number };
const asked = perHouse(() => latest<Asked>(5_000));

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

function keep(otium: Needs, challenge: string, asking: Asking): string {
	const id = nanoid();
	asked(otium.db).set(id, { ...asking, challenge, until: otium.now() + ASKED_FOR_MS });
	return id;
}

/** The challenge, if this is who asked for it and why; it is used up either way. */
function take(otium: Needs, id: string, asking: Asking): Asked | null {
	const one = asked(otium.db).get(id);
	asked(otium.db).delete(id);
	if (!one || one.until <= otium.now()) return null;
	const isTheirs = one.act === asking.act && one.staffId === asking.staffId && one.signIn === asking.signIn;
	return isTheirs ? one : null;
}

/** Somebody in one of their sign-ins. */
type Self = { staffId: string; signIn: string };
export type AskedToMake = { id: string; options: PublicKeyCredentialCreationOptionsJSON };

/** What a browser needs to make a passkey for somebody (Web Authentication, level 3). */
export async function askToMake(otium: Needs, { staffId, signIn }: Self, url: URL): Promise<AskedToMake> {
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
	return { id: keep(otium, options.challenge, { act: 'make', staffId, signIn }), options };
}

/** Takes over the passkey that was made. Returns whether it was. */
export async function takePasskey(
	otium: Needs,
	{ staffId, signIn }: Self,
	id: string,
	response: RegistrationResponseJSON,
	name: string,
	url: URL
): Promise<boolean> {
	const one = take(otium, id, { act: 'make', staffId, signIn });
	if (!one) return false;
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

/** What a browser needs to show that it has a passkey. */
export async function askToUse(otium: Needs, asking: Asking, url: URL): Promise<AskedToUse> {
	const { staffId } = asking;
	const own: Row[] = staffId === null ? [] : await otium.db('passkey').where({ staff_id: staffId });
	const { generateAuthenticationOptions } = await webAuthn();
	const options = await generateAuthenticationOptions({
		rpID: url.hostname,
		userVerification: 'required',
		allowCredentials: own.map((row) => ({ id: row.id, transports: JSON.parse(row.transports) }))
	});
	return { id: keep(otium, options.challenge, asking), options };
}

/** Who has shown a passkey of theirs, to the challenge that was asked for so; null: nobody has. */
export async function whoUsed(
	otium: Needs,
	id: string,
	asking: Asking,
	response: AuthenticationResponseJSON,
	url: URL
): Promise<string | null> {
	const one = take(otium, id, asking);
	const row: Row | undefined = await otium.db('passkey').where({ id: response.id }).first();
	if (!one || !row || (asking.staffId !== null && asking.staffId !== row.staff_id)) return null;
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
