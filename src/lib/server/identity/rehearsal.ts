import { nanoid } from 'nanoid';
import {
	foldNumber,
	isAtLeast,
	isDeviceReady,
	sameName,
	type CheckResult,
	type DeviceNeeds,
	type ProvenClient
} from '$core/access';
import { refusal, RefusalError } from '$core/sitting';
import { loadSitting } from '../sitting';
import type { House } from '../house';
import { findSessions } from '../session';
import { refuse, type Answer } from './answer';

/** What this needs of the house. */
type Needs = Pick<House, 'db' | 'now' | 'limits'>;

export type Rehearsal = {
	number: string;
	family: string;
	address: string;
	deviceName: string;
	client: ProvenClient | null;
	results: CheckResult[];
};
export type Rehearsed = Answer<{ ready: boolean; name: string; needs: DeviceNeeds; clientSays: CheckResult }>;

/**
 * Writes down what a device could do, for a candidate who says who they are. It uses up nothing: no sitting, no attempt,
 * no entitlement. Wrong tries are limited as at the door.
 */
export async function rehearse(otium: Needs, asked: Rehearsal): Promise<Rehearsed> {
	const now = otium.now();
	const counted = await otium.limits.consume('rehearsal', foldNumber(asked.number), asked.address, now);
	if (counted.wait > 0) return refuse('too_many_tries', counted.wait);
	const candidate = await otium
		.db('candidate')
		.where({ number_folded: foldNumber(asked.number) })
		.whereNull('left_at')
		.first();
	if (!candidate || !sameName(candidate.family, asked.family)) {
		await otium.limits.missed('rehearsal', asked.address);
		return refuse('identity_unknown');
	}
	await otium.limits.succeeded(counted);
	const needs = await needsOf(otium, candidate.id, now);
	const { ready, clientSays } = await writeCheck(otium, candidate.id, null, needs, asked);
	// Nothing is told that was not typed: a number and a family name do not make a stranger learn more.
	return { ok: true, ready, name: candidate.number, needs, clientSays };
}

type Found = { deviceName: string; client: ProvenClient | null; results: CheckResult[] };

/** Writes down what the list at the door found, for the sitting that the device is bound to. */
export async function checkAtDoor(otium: Needs, sittingId: string, found: Found): Promise<{ ready: boolean }> {
	const one = await loadSitting(otium.db, sittingId, otium.now());
	if (!one) throw new RefusalError(refusal('gone'));
	const { level, clientVersion, snapshotSeconds } = one.session.rules.lockdown;
	const needs = { client: level === 'sealed' ? clientVersion : null, camera: snapshotSeconds !== null };
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
	const clientSays = clientResult(found.client, needs);
	// What the client is, the server knows by itself; the device is not asked.
	const results = [clientSays, ...found.results.filter((result) => result.key !== 'client')];
	const ready = isDeviceReady(results, needs);
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
	return { client: newest, camera: sessions.some((session) => session.rules.lockdown.snapshotSeconds !== null) };
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
