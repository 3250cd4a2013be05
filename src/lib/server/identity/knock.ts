import {
	clientFor,
	foldNumber,
	isTablet,
	readDoorCode,
	SLIP_LENGTH,
	type EntryRefusal,
	type ProvenClient
} from '$core/access';
import { fullName } from '$core/names';
import type { Recognised } from '$core/room';
import { refusal } from '$core/sitting';
import { macOf, type Query } from '../db';
import { noteRefusal, type Refused } from '../door';
import type { House } from '../house';
import { findSession } from '../session';
import { loadSitting, whereOf } from '../sitting';
import { offNetwork, refuse, type Answer } from './answer';
import { doorNote, type Recognition } from './door-note';
import { isOnNetwork } from './network';
import {
	elsewhere,
	onRoster,
	ownWindowHere,
	recognise,
	sessionByCode,
	sittingBySlip,
	type Identity
} from './recognise';
import type { Try } from './limits';

/** What this needs of the house. */
type Needs = Pick<House, 'db' | 'now' | 'hub' | 'limits'>;

/** What a candidate types at the door. */
export type Knock = Identity & {
	/** The door's code, or a slip's. */
	code: string;
	address: string;
	client?: ProvenClient | null;
	deviceName?: string;
	/** By which the record knows the browser; null: it keeps no cookies. */
	browser?: string | null;
};

/** What the door says when something that was typed is wrong. */
const MISSES = new Set<string>(['code_unknown', 'code_expired', 'identity_unknown'] satisfies EntryRefusal[]);
/** What it says to somebody whom it knows. */
const KNOWN = new Set<string>(['not_on_list', 'wrong_session', 'no_tablets', 'client_unproven', 'client_outdated']);

/** Finds the sitting behind a code and an identity. A miss never says which part of it was wrong. */
export async function knock(otium: Needs, typed: Knock): Promise<Answer<{ person: Recognised }>> {
	const code = readDoorCode(typed.code);
	// Counted before anything is compared, and given back unless it was a miss: tries that come all at once are counted too.
	const tries: Try[] = [];
	const count = async (what: string): Promise<number> => {
		const how = { browser: typed.browser ?? null, looksOn: true };
		const one = await otium.limits.consume('door', targetOf(otium.db, what), typed.address, otium.now(), how);
		if (one.wait === 0) tries.push(one);
		return one.wait;
	};
	const names = foldNumber(`${typed.given ?? ''}${typed.family}`);
	const wait = await count(`${code} ${foldNumber(typed.number) || names}`);
	if (wait > 0) return refuse('too_many_tries', wait);
	const countNames = async () => (foldNumber(typed.number) === '' ? 0 : count(`${code} ${names}`));
	const answer = await recogniseAtDoor(otium, typed, code, tries, countNames);
	const said = answer.ok ? null : answer.refusal.code;
	if (tries.some(({ isResting }) => isResting)) return behindStrangers(otium, typed, tries, answer);
	for (const one of tries) {
		if (said === null || KNOWN.has(said)) await otium.limits.succeeded(one);
		else if (!MISSES.has(said)) await otium.limits.refund(one);
	}
	if (said !== null && MISSES.has(said)) await otium.limits.missed('door', typed.address);
	return answer;
}

/**
 * So many budgets there are for what is typed at doors: made-up codes and numbers fill no memory. Which of them share one
 * follows from a key of the house, so that nobody uses up another's on purpose.
 */
const BUDGETS = 2 ** 16;

function targetOf(db: Query, typed: string): string {
	return String(Buffer.from(macOf(db, 'marks', `door ${typed}`), 'base64url').readUInt32BE() % BUDGETS);
}

/** So long whoever asks is told to wait; the proctor lets them try again at once. */
const BEHIND_STRANGERS_S = 60;

/**
 * Strangers have guessed at these details until no more guesses are answered. Who types them right is put before the
 * proctor, who sees whether the candidate stands there; the browser is told the same whether they were right or not.
 */
async function behindStrangers(otium: Needs, typed: Knock, tries: Try[], answer: Met): Promise<Answer<never>> {
	if (answer.ok) {
		const { sittingId, sessionId } = answer.recognised;
		const { candidate_id: candidateId } = await otium.db('sitting').where({ id: sittingId }).first('candidate_id');
		await noteRefusal(otium, {
			sessionId,
			code: 'behind_strangers',
			deviceName: typed.deviceName ?? 'A device',
			candidateId,
			sittingId,
			waitsUntil: otium.now() + BEHIND_STRANGERS_S * 1_000,
			limited: tries.flatMap(({ target, browserTarget }) => [target, browserTarget ?? target])
		});
	} else await otium.limits.missed('door', typed.address);
	return refuse('too_many_tries', BEHIND_STRANGERS_S);
}

type Met = Answer<{ person: Recognised; recognised: Recognition }>;

async function recogniseAtDoor(
	otium: Needs,
	typed: Knock,
	code: string,
	tries: Try[],
	/** Counts the try for the names as well, where they are what is checked, whatever number is typed beside them. */
	countNames: () => Promise<number>
): Promise<Met> {
	const now = otium.now();
	const slip = code.length === SLIP_LENGTH ? await sittingBySlip(otium.db, code) : null;
	const here = slip
		? await findSession(otium.db, slip.session_id)
		: code === ''
			? null
			: await sessionByCode(otium, typed.code);
	if (!here || (slip && !here.rules.door.slips)) return refuse('code_unknown');
	if (here.codeDiesAt !== null && now >= here.codeDiesAt) return refuse('code_expired');
	const deviceName = typed.deviceName ?? 'A device';
	const tellProctor = (code: string, who: Partial<Refused> = {}) =>
		noteRefusal(otium, { sessionId: here.id, code, deviceName, ...who });
	// Those elsewhere may come from anywhere, where the rules say so; whoever else is off the networks learns nothing more.
	const isNear = await isOnNetwork(otium.db, here, typed.address);
	if (!isNear && !here.rules.elsewhere.anyNetwork) {
		await tellProctor('off_network');
		return offNetwork();
	}

	const { identity } = here.rules.door;
	if (!slip && identity === 'slip') return refuse('slip_needed');
	if (!slip && identity === 'names_and_birthday' && (!typed.given || !typed.birthday)) return refuse('names_needed');
	if (!slip && identity === 'names_and_birthday') {
		const wait = await countNames();
		if (wait > 0) return refuse('too_many_tries', wait);
	}
	const listed = slip
		? await onRoster(otium.db, here.id, { 'sitting.id': slip.sitting_id })
		: await recognise(otium.db, here, typed);
	// Whoever was given a window of their own in this room comes by its code, and sits what they were going to sit.
	const byWindow =
		listed || slip || identity !== 'number_and_family' ? null : await ownWindowHere(otium.db, here, typed, now);
	const { session, found } = byWindow ?? { session: here, found: listed };
	if (!isNear && !found?.elsewhere) {
		await tellProctor('off_network');
		return offNetwork();
	}
	if (!found) {
		const stranger = identity === 'number_and_family' && !slip ? await elsewhere(otium.db, session, typed) : null;
		if (stranger) {
			await tellProctor(stranger.code, { candidateId: stranger.candidateId });
			return { ok: false, refusal: stranger.refusal };
		}
		const waitsUntil = Math.max(...tries.map(({ until }) => until ?? 0)) || null;
		await tellProctor('identity_unknown', { waitsUntil, limited: tries.map(({ target }) => target) });
		return refuse('identity_unknown');
	}
	const { level, tablets } = session.rules.lockdown;
	if (level !== 'open' && !tablets && isTablet(deviceName)) {
		await tellProctor('no_tablets', { candidateId: found.candidate_id, sittingId: found.sitting_id });
		return refuse('no_tablets');
	}
	// Told here, at the door, and not when everyone else begins.
	const client = clientFor(session, typed.client ?? null);
	if (client === 'missing' || client === 'outdated') {
		const code = client === 'missing' ? 'client_unproven' : 'client_outdated';
		await tellProctor(code, { candidateId: found.candidate_id, sittingId: found.sitting_id });
		return { ok: false, refusal: refusal(code) };
	}

	const one = (await loadSitting(otium.db, found.sitting_id, now))!;
	const recognised = { sittingId: found.sitting_id, sessionId: session.id, epoch: one.sitting.epoch };
	const note = await doorNote(otium, recognised, typed.browser ?? null);
	return {
		ok: true,
		recognised,
		person: {
			note,
			name: fullName(found),
			number: found.number,
			paper: session.paper.title,
			...whereOf(one, found.seat),
			opens: one.reckoning.window.opens,
			zone: session.site.zone,
			kind: session.kind,
			photo: found.photo_at !== null
		}
	};
}
