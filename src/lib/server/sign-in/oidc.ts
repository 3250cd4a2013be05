import { randomBytes } from 'node:crypto';
import { nanoid } from 'nanoid';
import * as client from 'openid-client';
import { z } from 'zod';
import { STAFF_ROLES, type HeldRole } from '$core/access';
import type { Actor } from '$core/sitting';
import { perHouse, transact, type Query } from '../db';
import { appendToLogbook } from '../logbook';
import { endSessions, openSession, type From, type Needs, type Opened } from './sessions';

const ASKED_FOR_MS = 10 * 60_000;
/** What of `amr` (RFC 8176) says that more than a password was shown there. */
const STRONG = ['mfa', 'otp', 'hwk', 'swk', 'fpt', 'face', 'sc'];

/** Which values of a claim give which roles; a site by its name, `*`: at all. */
const RolesByClaim = z.object({
	claim: z.string().min(1),
	give: z.record(z.string(), z.array(z.object({ role: z.enum(STAFF_ROLES), site: z.string() })))
});

type Service = {
	issuer: URL;
	clientId: string;
	secret: string;
	name: string;
	roles: z.infer<typeof RolesByClaim> | null;
};

/**
 * The house's own sign-in service (OpenID Connect Core 1.0), from the environment; null: it has none.
 * @throws Error that says which setting is wrong
 */
export function oidcService(env = process.env): Service | null {
	if (!env.OTIUM_OIDC_ISSUER) return null;
	const { OTIUM_OIDC_CLIENT: clientId, OTIUM_OIDC_SECRET: secret, OTIUM_OIDC_ROLES: roles } = env;
	if (!clientId || !secret)
		throw new Error('OTIUM_OIDC_ISSUER takes OTIUM_OIDC_CLIENT and OTIUM_OIDC_SECRET beside it.');
	return {
		issuer: new URL(env.OTIUM_OIDC_ISSUER),
		clientId,
		secret,
		name: env.OTIUM_OIDC_NAME ?? new URL(env.OTIUM_OIDC_ISSUER).hostname,
		roles: roles ? RolesByClaim.parse(JSON.parse(roles)) : null
	};
}

/** What the button says; null: there is none. */
export function oidcName(): string | null {
	return oidcService()?.name ?? null;
}

const found = perHouse((): { config: Promise<client.Configuration> | null } => ({ config: null }));

/** What the service says of itself, asked for once. */
function configOf(db: Query, { issuer, clientId, secret }: Service): Promise<client.Configuration> {
	const cell = found(db);
	// A stand-in on this machine speaks plain HTTP; nothing else may.
	const isHere = ['localhost', '127.0.0.1'].includes(issuer.hostname);
	const execute = isHere && issuer.protocol === 'http:' ? [client.allowInsecureRequests] : [];
	cell.config ??= client.discovery(issuer, clientId, secret, undefined, { execute }).catch((error: unknown) => {
		cell.config = null;
		throw error;
	});
	return cell.config;
}

/** What this browser keeps until it comes back. */
export type OidcAsked = { state: string; nonce: string; verifier: string; to: string; until: number };

/** Where to send somebody to sign in, and what to keep until they are back. */
export async function askOidc(otium: Needs, url: URL, to: string): Promise<{ address: URL; asked: OidcAsked }> {
	const service = oidcService()!;
	const config = await configOf(otium.db, service);
	const verifier = client.randomPKCECodeVerifier();
	const asked = {
		state: client.randomState(),
		nonce: client.randomNonce(),
		verifier,
		to,
		until: otium.now() + ASKED_FOR_MS
	};
	const address = client.buildAuthorizationUrl(config, {
		redirect_uri: backAt(url),
		scope: 'openid profile email',
		state: asked.state,
		nonce: asked.nonce,
		code_challenge: await client.calculatePKCECodeChallenge(verifier),
		code_challenge_method: 'S256'
	});
	return { address, asked };
}

const backAt = (url: URL) => `${url.origin}/sign-in/oidc/back`;

type Claims = Record<string, unknown> & { sub: string };
export type OidcResult = { ok: true; opened: Opened } | { ok: false; trouble: 'unknown' | 'failed' };

/** Takes over what the service said of whoever came back. */
export async function takeOidc(otium: Needs, url: URL, asked: OidcAsked, from: From): Promise<OidcResult> {
	const service = oidcService();
	if (!service || asked.until < otium.now()) return { ok: false, trouble: 'failed' };
	let claims: Claims;
	try {
		const here = new URL(backAt(url));
		here.search = url.search;
		const tokens = await client.authorizationCodeGrant(await configOf(otium.db, service), here, {
			pkceCodeVerifier: asked.verifier,
			expectedState: asked.state,
			expectedNonce: asked.nonce
		});
		claims = tokens.claims() as Claims;
	} catch {
		return { ok: false, trouble: 'failed' };
	}
	const staffId = await personOf(otium, service, claims);
	if (staffId === null) return { ok: false, trouble: 'unknown' };
	const isStrong = Array.isArray(claims.amr) && claims.amr.some((one) => STRONG.includes(one as string));
	return { ok: true, opened: await openSession(otium, staffId, from, isStrong) };
}

/** Whoever the service means: known by it, or by an address that it has verified; or new, where a claim gives roles. */
async function personOf(otium: Needs, service: Service, claims: Claims): Promise<string | null> {
	const { db } = otium;
	const email = claims.email_verified === true ? String(claims.email ?? '').toLowerCase() : '';
	const known = await db('staff').where({ oidc_subject: claims.sub }).first('id');
	const mailed = known || !email ? [] : await db('staff').whereNotNull('email').select('id', 'email', 'oidc_subject');
	const sameMail = mailed.filter((row) => row.email.toLowerCase() === email && row.oidc_subject === null);
	const roles = service.roles && (await rolesGiven(db, service.roles, claims));
	let id: string | null = known?.id ?? (sameMail.length === 1 ? sameMail[0].id : null);
	if (id === null && !roles?.length) return null;
	const by: Actor = { role: 'system', id: 'sign-in service' };
	const name = String(claims.name ?? claims.preferred_username ?? claims.email ?? claims.sub).slice(0, 120);
	let hasLost = false;
	await transact(db, async (trx) => {
		const isNew = id === null;
		if (id === null) {
			id = nanoid();
			const sign_in = await freeName(trx, String(claims.preferred_username ?? (email || claims.sub)));
			// Nobody knows this password: whoever comes by the service has none here until they choose one.
			const password_hash = await otium.passwords.hash(randomBytes(32).toString('base64url'));
			await trx('staff').insert({ id, name, sign_in, email: email || null, password_hash, oidc_subject: claims.sub });
		} else if (!known) await trx('staff').where({ id }).update({ oidc_subject: claims.sub });
		if (!roles) return;
		const before: { role: string; site_id: string | null }[] = await trx('staff_role').where({ staff_id: id });
		const keyOf = (one: { role: string; site_id: string | null }) => `${one.role} ${one.site_id}`;
		const after = roles.map(({ role, siteId }) => ({ staff_id: id!, role, site_id: siteId }));
		const isSame = before.map(keyOf).sort().join() === after.map(keyOf).sort().join();
		if (isSame && !isNew) return;
		hasLost = !isNew;
		await trx('staff_role').where({ staff_id: id }).delete();
		if (after.length > 0) await trx('staff_role').insert(after);
		const body = { name, roles: roles.map((held) => held.role), password: false };
		await appendToLogbook(trx, [{ at: otium.now(), by, kind: isNew ? 'staff_added' : 'staff_changed', body }]);
	});
	// What they lost ends at once, wherever they are signed in.
	if (hasLost) await endSessions(otium, (query) => query.where({ staff_id: id! }));
	return id;
}

async function freeName(db: Query, wanted: string): Promise<string> {
	const base =
		wanted
			.toLowerCase()
			.replace(/@.*$/, '')
			.replace(/[^a-z0-9._-]/g, '')
			.slice(0, 36) || 'staff';
	for (let n = 1; ; n++) {
		const name = n === 1 ? base : `${base}${n}`;
		if (!(await db('staff').where({ sign_in: name }).first('id'))) return name;
	}
}

async function rolesGiven(
	db: Query,
	{ claim, give }: z.infer<typeof RolesByClaim>,
	claims: Claims
): Promise<HeldRole[]> {
	const values = [claims[claim]].flat().filter((value) => typeof value === 'string');
	const sites: { id: string; name: string }[] = await db('site').select('id', 'name');
	const given = values.flatMap((value) => (Object.hasOwn(give, value) ? give[value] : []));
	const held = given.flatMap(({ role, site }): HeldRole[] => {
		if (site === '*') return [{ role, siteId: null }];
		const known = sites.find((one) => one.name === site);
		return known ? [{ role, siteId: known.id }] : [];
	});
	return [...new Map(held.map((one) => [`${one.role} ${one.siteId}`, one])).values()];
}
