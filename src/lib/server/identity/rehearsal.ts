import { nanoid } from 'nanoid';
import {
	isAtLeast,
	isDeviceReady,
	readDoorCode,
	type CheckResult,
	type DeviceNeeds,
	type ProvenClient
} from '$core/access';
import { refusal, RefusalError } from '$core/sitting';
import type { Query } from '../db';
import { loadSitting } from '../sitting';
import type { House } from '../house';
import { hasSound } from '../records';
import { findSessions } from '../session';
import { refuse, type Answer } from './answer';
import { sittingBySlip } from './recognise';
import { readNote, signNote } from './tokens';

/** What this needs of the house. */
type Needs = Pick<House, 'db' | 'now' | 'limits'>;

export type Rehearsal = {
	/** The note of the link in somebody's mail, or the code on their slip; empty: nobody is told. */
	by: string;
	address: string;
	deviceName: string;
	client: ProvenClient | null;
	results: CheckResult[];
};
/** `name`: the number of whoever it was written down for; null: for nobody. */
export type Rehearsed = Answer<{
	ready: boolean;
	name: string | null;
	needs: DeviceNeeds;
	clientSays: CheckResult;
}>;

/** What a link to rehearse carries, so that what is found is written down for them and for nobody else. */
export function rehearsalNote(db: Query, candidateId: string, expires: number): Promise<string> {
	return signNote(db, { rehearses: candidateId }, expires);
}

/**
 * Says what a device can do, and writes it down for whoever shows by a link or a slip who they are. It uses up nothing: no
 * sitting, no attempt, no entitlement.
 */
export async function rehearse(otium: Needs, asked: Rehearsal): Promise<Rehearsed> {
	const now = otium.now();
	const wait = await otium.limits.asked('rehearsal', asked.address);
	if (wait > 0) return refuse('too_many_tries', wait);
	if (asked.by.trim() === '') {
		const needs = { client: null, camera: false, sound: true };
		const { ready, clientSays } = judge(needs, asked);
		return { ok: true, ready, name: null, needs, clientSays };
	}
	const id = await whoRehearses(otium, asked.by);
	const candidate = id && (await otium.db('candidate').where({ id, left_at: null }).first());
	if (!candidate)
		return {
			ok: false,
			refusal: {
				code: 'identity_unknown',
				message: 'This code is on no slip.',
				instead:
					'Enter it as it is printed, or open the link in your mail. Without a code the device is checked all the same.'
			}
		};
	const needs = await needsOf(otium, candidate.id, now);
	const { ready, clientSays } = await writeCheck(otium, candidate.id, null, needs, asked);
	// Nothing is told that was not typed: a number and a family name do not make a stranger learn more.
	return { ok: true, ready, name: candidate.number, needs, clientSays };
}

async function whoRehearses(otium: Needs, by: string): Promise<string | null> {
	const note = await readNote(otium.db, by, otium.now());
	if (note) return (note.rehearses as string | undefined) ?? null;
	const slip = await sittingBySlip(otium.db, readDoorCode(by));
	const row = slip && (await otium.db('sitting').where({ id: slip.sitting_id }).first('candidate_id'));
	return row?.candidate_id ?? null;
}

type Found = { deviceName: string; client: ProvenClient | null; results: CheckResult[] };

/** Writes down what the list at the door found, for the sitting that the device is bound to. */
export async function checkAtDoor(otium: Needs, sittingId: string, found: Found): Promise<{ ready: boolean }> {
	const one = await loadSitting(otium.db, sittingId, otium.now());
	if (!one) throw new RefusalError(refusal('gone'));
	const { level, clientVersion, snapshotSeconds } = one.session.rules.lockdown;
	const needs = {
		client: level === 'sealed' ? clientVersion : null,
		camera: snapshotSeconds !== null,
		sound: await hasSound(otium.db, one.paperId)
	};
	const { ready } = await writeCheck(otium, one.candidate.id, one.session.id, needs, found);
	return { ready };
}

async function writeCheck(
	otium: Needs,
	candidateId: string,
	sessionId: string | null,
	needs: DeviceNeeds,
	found: Found
) {
	const { ready, clientSays, results } = judge(needs, found);
	await otium.db('device_check').insert({
		id: nanoid(),
		candidate_id: candidateId,
		session_id: sessionId,
		at: otium.now(),
		device_name: found.deviceName,
		client_version: found.client?.version ?? null,
		checks: JSON.stringify(results.map(({ key, ok, says }) => ({ name: key, ok, says }))),
		ready
	});
	return { ready, clientSays };
}

function judge(needs: DeviceNeeds, found: Found) {
	const clientSays = clientResult(found.client, needs);
	// What the client is, the server knows by itself; the device is not asked.
	const results = [clientSays, ...found.results.filter((result) => result.key !== 'client')];
	return { ready: isDeviceReady(results, needs), clientSays, results };
}

async function needsOf(otium: Needs, candidateId: string, now: number): Promise<DeviceNeeds> {
	const sessions = await findSessions(otium.db, (query) =>
		query
			.whereIn('session.id', otium.db('sitting').where({ candidate_id: candidateId }).select('session_id'))
			.whereNull('ended_at')
			.where('opens', '>', now - 24 * 3_600_000)
	);
	const sealed = sessions
		.filter((session) => session.rules.lockdown.level === 'sealed')
		.map((session) => session.rules.lockdown.clientVersion);
	const newest = sealed.reduce<string | null>(
		(best, one) => (best === null || isAtLeast(one, best) ? one : best),
		null
	);
	let sound = false;
	for (const { paper } of sessions) sound ||= await hasSound(otium.db, paper.id);
	const camera = sessions.some((session) => session.rules.lockdown.snapshotSeconds !== null);
	return { client: newest, camera, sound };
}

function clientResult(client: ProvenClient | null, needs: DeviceNeeds): CheckResult {
	if (client === null)
		return {
			key: 'client',
			ok: needs.client === null,
			says:
				needs.client === null ? 'none is needed' : `version ${needs.client} or newer is needed; this is a plain browser`
		};
	if (needs.client !== null && !isAtLeast(client.version, needs.client))
		return {
			key: 'client',
			ok: false,
			says: `version ${client.version} is too old; ${needs.client} or newer is needed`
		};
	return { key: 'client', ok: true, says: `version ${client.version}, proved` };
}
