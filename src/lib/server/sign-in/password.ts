import { passwordFault } from '$core/access';
import type { Actor } from '$core/sitting';
import { macOf, sealSecret, transact, type Query } from '../db';
import type { House } from '../house';
import { endLinks, hashToken, newToken, readNote, signNote } from '../identity';
import { appendToLogbook } from '../logbook';
import { actorOf, endSessions, openSession, type From, type Needs, type Opened } from './sessions';

const KNOWN_FOR_MS = 180 * 24 * 3_600_000;
const LINK_FOR_MS = 60 * 60_000;
/** For somebody new, who may read the mail tomorrow. */
const INVITE_FOR_MS = 7 * 24 * 60 * 60_000;
/** Wrong passwords in a row that the logbook tells of, gathered. */
const TOLD_AT = [5, 25, 100];

/**
 * Passwords that are tried first; the list comes with the package and is asked nowhere. Read when somebody first chooses
 * a password, so that a server that is started again does not wait for it.
 */
const commonPasswords = async () => {
	const { dictionary } = await import('@zxcvbn-ts/language-common');
	return dictionary['passwords-common'] as string[];
};

/** `known`: lets this browser go on when strangers have tried the same name too often, until `knownUntil`. */
export type SignIn = (Opened & { ok: true; known: string; knownUntil: number }) | { ok: false; waitSeconds: number };

/** Signs in by name or e-mail, or says how long to wait before the next try. What was wrong is not told. */
export async function signIn(
	otium: Needs,
	name: string,
	password: string,
	from: From,
	/** What an earlier sign-in of this name left in this browser. */
	known: string | null = null
): Promise<SignIn> {
	const now = otium.now();
	const row = await byNameOrEmail(otium.db, name);
	const account = accountOf(otium.db, name, row);
	const isKnown = known !== null && (await readNote(otium.db, known, now))?.account === account;
	const browser = isKnown ? hashToken(known) : null;
	if (otium.passwords.isFull) return { ok: false, waitSeconds: 2 };
	// Counted before comparing, and given back when it was right: tries that come all at once are counted like any others.
	const counted = await otium.limits.consume('staff', account, from.address, now, { known: browser });
	if (counted.wait > 0) return { ok: false, waitSeconds: counted.wait };

	if (!(await otium.passwords.isRight(row?.password_hash ?? null, password))) {
		if (row && TOLD_AT.includes(counted.misses)) await noteMisses(otium, row.id, counted.misses, from.address);
		await otium.limits.missed('staff', from.address);
		return { ok: false, waitSeconds: 0 };
	}
	await otium.limits.succeeded(counted);
	const opened = await openSession(otium, row!.id, from, false);
	const knownUntil = now + KNOWN_FOR_MS;
	return { ok: true, ...opened, known: await signNote(otium.db, { account }, knownUntil), knownUntil };
}

type StaffRow = { id: string; name: string; sign_in: string; email: string | null; password_hash: string };

/** Names that are nobody's share so many budgets: whoever makes up names all night fills no memory. */
const NOBODYS = 2 ** 14;

/**
 * For whom a try is counted: an account has one budget, by whichever of its names it is tried. What is nobody's name is
 * counted as well, so that the waits tell nothing.
 */
function accountOf(db: Query, typed: string, row: StaffRow | undefined): string {
	if (row) return row.id;
	const mark = macOf(db, 'marks', `nobody ${typed.trim().toLowerCase()}`);
	return `nobody ${Buffer.from(mark, 'base64url').readUInt32BE() % NOBODYS}`;
}

/** Two who share an address are found by their names alone. */
async function byNameOrEmail(db: Query, name: string): Promise<StaffRow | undefined> {
	const typed = name.trim().toLowerCase();
	const named: StaffRow | undefined = await db('staff').where({ sign_in: typed }).first();
	if (named) return named;
	const mailed: StaffRow[] = await db('staff').whereNotNull('email');
	const rows = mailed.filter((row) => row.email!.toLowerCase() === typed);
	return rows.length === 1 ? rows[0] : undefined;
}

async function noteMisses(otium: Needs, staffId: string, misses: number, address: string): Promise<void> {
	const by: Actor = { role: 'system', id: 'sign-in' };
	const body = { staff: staffId, misses, address };
	await transact(otium.db, (trx) => appendToLogbook(trx, [{ at: otium.now(), by, kind: 'sign_in_failed', body }]));
}

/** Whether this is that person's password, counted like a sign-in. */
export async function isOwnPassword(
	otium: Needs,
	staffId: string,
	password: string,
	{ address, signIn }: { address: string; signIn: string }
): Promise<{ isRight: boolean; waitSeconds: number }> {
	const counted = await otium.limits.consume('staff', staffId, address, otium.now(), { known: signIn });
	if (counted.wait > 0) return { isRight: false, waitSeconds: counted.wait };
	const row = await otium.db('staff').where({ id: staffId }).first('password_hash');
	const isRight = await otium.passwords.isRight(row?.password_hash ?? null, password);
	if (isRight) await otium.limits.succeeded(counted);
	return { isRight, waitSeconds: 0 };
}

/** Why this can't be somebody's password; null: it can. */
export async function faultOfPassword(db: Query, staffId: string | null, password: string, also: string[] = []) {
	const row = staffId === null ? null : await db('staff').where({ id: staffId }).first('sign_in', 'name', 'email');
	const about = [...also, ...(row ? [row.sign_in, row.name, row.email ?? ''] : [])];
	const common = await commonPasswords();
	return passwordFault(password, about, (word) => common.includes(word));
}

export type Changed = { ok: true } | { ok: false; message: string };

/**
 * Somebody's own new password. Every other sign-in of theirs ends, and every link that was sent to them.
 * @param here the sign-in by which it is asked; null: by a link
 */
export async function changePassword(
	otium: Needs,
	staffId: string,
	password: string,
	here: string | null
): Promise<Changed> {
	const fault = await faultOfPassword(otium.db, staffId, password);
	if (fault) return { ok: false, message: fault };
	const password_hash = await otium.passwords.hash(password);
	const by = await actorOf(otium.db, staffId);
	await transact(otium.db, async (trx) => {
		await trx('staff').where({ id: staffId }).update({ password_hash, must_change: false });
		await endLinks(trx, staffId);
		await appendToLogbook(trx, [{ at: otium.now(), by, kind: 'password_changed', body: { byLink: here === null } }]);
	});
	await endSessions(otium, (query) => query.where({ staff_id: staffId }).whereNot({ token_hash: here ?? '' }));
	return { ok: true };
}

/**
 * Mails a link by which a new password can be set, if there is somebody of that name with an address; nothing tells
 * whether there is. The link works once. Whoever asks takes nothing away: links that were sent before go on working.
 */
export async function askForLink(otium: Needs, name: string, origin: string, address: string): Promise<number> {
	const row = await byNameOrEmail(otium.db, name);
	const account = accountOf(otium.db, name, row);
	const counted = await otium.limits.consume('staff', `link ${account}`, address, otium.now(), { free: 3 });
	if (counted.wait > 0) return counted.wait;
	// Not waited for: how long it takes would tell whether there is somebody. One that fails is asked for once more.
	if (row?.email) void sendLink(otium, row, origin, false).catch(() => {});
	return 0;
}

/**
 * Sends somebody the link by which they choose their password.
 * @param leaves whether mail leaves this house
 * @returns the link where it has to be handed over: no mail leaves, or they have no address; null: it was sent
 */
export async function invite(
	otium: Pick<House, 'db' | 'now'>,
	by: Actor,
	staffId: string,
	origin: string,
	leaves: boolean
): Promise<{ link: string | null }> {
	const row: StaffRow = await otium.db('staff').where({ id: staffId }).first();
	const isMailed = leaves && row.email !== null;
	const link = await sendLink(otium, row, origin, true, isMailed);
	const kind = isMailed ? 'password_link_sent' : 'password_link_shown';
	await transact(otium.db, (trx) => appendToLogbook(trx, [{ at: otium.now(), by, kind, body: { name: row.name } }]));
	return { link: isMailed ? null : link };
}

async function sendLink(
	otium: Pick<House, 'db' | 'now'>,
	to: StaffRow,
	origin: string,
	isInvite: boolean,
	isMailed = true
): Promise<string> {
	const now = otium.now();
	const token = newToken();
	const lasts = isInvite ? INVITE_FOR_MS : LINK_FOR_MS;
	const link = `${origin}/sign-in/new-password?link=${token}`;
	const body = isInvite
		? `Dear ${to.name},\n\nyou can sign in to Otium as ${to.sign_in}. Choose your password here, within a week:\n\n${link}\n\nThe link works once.`
		: `Dear ${to.name},\n\nsomebody, probably you, has asked for a new password for ${to.sign_in}. Choose it here, within the hour:\n\n${link}\n\nThe link works once. If it was not you, do nothing: your password stays as it is.`;
	await transact(otium.db, async (trx) => {
		await trx('password_link').where('expires_at', '<=', now).delete();
		// A new invitation takes the place of the one before; what strangers can ask for takes no link away.
		if (isInvite) await endLinks(trx, to.id);
		await trx('password_link').insert({ token_hash: hashToken(token), staff_id: to.id, expires_at: now + lasts });
		if (!isMailed) return;
		await trx('mail').insert({
			id: hashToken(link).slice(0, 21),
			made_at: now,
			session_id: null,
			kind: 'password',
			to_name: to.name,
			to_address: to.email,
			subject: isInvite ? 'Your sign-in to Otium' : 'A new password for Otium',
			body: sealSecret(trx, body),
			state: 'waiting'
		});
	});
	return link;
}

/** Whose link this is; null: it is nobody's, was used, or is too old. */
export async function ownerOfLink(
	db: Query,
	token: string,
	now: number
): Promise<{ staffId: string; name: string } | null> {
	const row = await db('password_link')
		.join('staff', 'staff.id', 'password_link.staff_id')
		.where({ token_hash: hashToken(token), used_at: null })
		.where('expires_at', '>', now)
		.first('staff.id', 'staff.name');
	return row ? { staffId: row.id, name: row.name } : null;
}

/** Sets the password that a link is for. A second use at the same moment changes nothing. */
export async function useLink(otium: Needs, token: string, password: string): Promise<Changed> {
	const owner = await ownerOfLink(otium.db, token, otium.now());
	const gone = { ok: false as const, message: 'This link was used, or is too old. Ask for a new one.' };
	if (!owner) return gone;
	const fault = await faultOfPassword(otium.db, owner.staffId, password);
	if (fault) return { ok: false, message: fault };
	const taken = await otium
		.db('password_link')
		.where({ token_hash: hashToken(token), used_at: null })
		.update({ used_at: otium.now() });
	return taken === 1 ? changePassword(otium, owner.staffId, password, null) : gone;
}
