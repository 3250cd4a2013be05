import { nanoid } from 'nanoid';
import type { Busy } from '$core/formats';
import { grantInWords } from '$core/grants';
import { foldNumber } from '$core/access';
import { fullName } from '$core/names';
import { birthFault } from '$core/people';
import { localDate } from '$core/time';
import type { Actor } from '$core/sitting';
import { insertMany, type Query, transact } from '../db';
import { findGrants } from '../grants';
import { siteOfCandidate } from '../records';
import { appendToLogbook } from '../logbook';
import type { House, Writing } from '../house';
import { loadSittings } from '../sitting';
import { readTimetable } from './read';

/** All that is known of one candidate. */
export type Person = {
	id: string;
	number: string;
	/** As it is read. */
	name: string;
	given: string;
	family: string;
	email: string | null;
	birth: string | null;
	language: string | null;
	grade: string | null;
	userName: string | null;
	/** They do not sit in the room. */
	elsewhere: boolean;
	photo: boolean;
	left: boolean;
	site: { id: string; name: string; zone: string };
	groups: { id: string; name: string }[];
	standing: { id: string; kind: string; what: string; reason: string; by: string; at: number }[];
	commitments: { id: string; from: number; to: number; title: string }[];
	sittings: { id: string; session: string; sessionId: string; opens: number; state: string; kind: string }[];
	checks: {
		at: number;
		device: string;
		ready: boolean;
		client: string | null;
		checks: { name: string; ok: boolean; says: string }[];
	}[];
};

export async function findPerson(db: Query, id: string, now: number): Promise<Person | null> {
	const row = await db('candidate')
		.join('candidate_group', 'candidate_group.id', 'candidate.group_id')
		.join('site', 'site.id', 'candidate_group.site_id')
		.where('candidate.id', id)
		.first('candidate.*', 'site.id as site_id', 'site.name as site', 'site.zone');
	if (!row) return null;
	const grants = (await findGrants(db, [id], [])).filter(
		(grant) => grant.scope.kind === 'standing' && grant.withdrawnAt === null
	);
	const givers: { id: string; name: string }[] = await db('staff')
		.whereIn(
			'id',
			grants.map((grant) => grant.givenBy)
		)
		.select('id', 'name');
	const sittingIds: string[] = await db('sitting').where({ candidate_id: id }).pluck('id');
	const sittings = await loadSittings(db, sittingIds, now);
	const checks: { at: number; device_name: string; ready: number; client_version: string | null; checks: string }[] =
		await db('device_check').where({ candidate_id: id }).orderBy('at', 'desc').limit(5);
	return {
		id,
		number: row.number,
		name: fullName(row),
		given: row.given,
		family: row.family,
		email: row.email,
		birth: row.birth,
		language: row.language,
		grade: row.grade,
		userName: row.user_name,
		elsewhere: Boolean(row.elsewhere),
		photo: row.photo_at !== null,
		left: row.left_at !== null,
		site: { id: row.site_id, name: row.site, zone: row.zone },
		groups: await db('group_member')
			.join('candidate_group', 'candidate_group.id', 'group_member.group_id')
			.where({ candidate_id: id })
			.orderBy('name')
			.select('candidate_group.id', 'name'),
		standing: grants.map((grant) => ({
			id: grant.id,
			kind: grant.body.kind,
			what: grantInWords(grant, row.zone),
			reason: grant.reason,
			by: givers.find((one) => one.id === grant.givenBy)?.name ?? '',
			at: grant.givenAt
		})),
		commitments: await db('commitment')
			.where({ candidate_id: id })
			.where('to_at', '>', now - 24 * 3_600_000)
			.orderBy('from_at')
			.limit(60)
			.select('id', 'from_at as from', 'to_at as to', 'title'),
		sittings: sittings
			.sort((a, b) => b.session.window.opens - a.session.window.opens)
			.map((one) => ({
				id: one.sitting.id,
				session: one.session.name,
				sessionId: one.session.id,
				opens: one.session.window.opens,
				state: one.sitting.state,
				kind: one.session.kind
			})),
		checks: checks.map((check) => ({
			at: check.at,
			device: check.device_name,
			ready: Boolean(check.ready),
			client: check.client_version,
			checks: JSON.parse(check.checks)
		}))
	};
}

export type PersonChange = {
	number: string;
	given: string;
	family: string;
	email: string | null;
	birth: string | null;
	language: string | null;
	grade: string | null;
	userName: string | null;
	elsewhere: boolean;
	groupIds: string[];
	left: boolean;
};
export type PersonResult = { ok: true } | { ok: false; field: keyof PersonChange; message: string };

/** Changes what is known of a candidate. Names are kept exactly as registered. */
export async function changePerson(otium: Writing, by: Actor, id: string, change: PersonChange): Promise<PersonResult> {
	const now = otium.now();
	return transact(otium.db, async (trx): Promise<PersonResult> => {
		const siteId = (await siteOfCandidate(trx, id))!;
		const { zone } = (await trx('site').where({ id: siteId }).first('zone')) as { zone: string };
		const fault = await faultOf(trx, change, { but: id, siteId, today: localDate(now, zone) });
		if (fault) return fault;
		const before = await trx('candidate').where({ id }).first();
		const home = change.groupIds.includes(before.group_id) ? before.group_id : change.groupIds[0];
		await trx('candidate')
			.where({ id })
			.update({ ...columnsOf(change), group_id: home, left_at: change.left ? (before.left_at ?? now) : null });
		await trx('group_member').where({ candidate_id: id }).delete();
		await trx('group_member').insert(change.groupIds.map((group_id) => ({ candidate_id: id, group_id })));
		const body = { number: change.number, name: fullName(change), left: change.left };
		await appendToLogbook(trx, [{ at: now, by, kind: 'person_changed', body }]);
		return { ok: true };
	});
}

/** Adds somebody by hand, to groups of one site. */
export async function addPerson(
	otium: Writing,
	by: Actor,
	siteId: string,
	change: PersonChange
): Promise<{ ok: true; id: string } | Exclude<PersonResult, { ok: true }>> {
	const now = otium.now();
	return transact(otium.db, async (trx) => {
		const { zone } = (await trx('site').where({ id: siteId }).first('zone')) as { zone: string };
		const fault = await faultOf(trx, change, { but: '', siteId, today: localDate(now, zone) });
		if (fault) return fault;
		const id = nanoid();
		await trx('candidate').insert({ id, ...columnsOf(change), group_id: change.groupIds[0] });
		await trx('group_member')
			.insert(change.groupIds.map((group_id) => ({ candidate_id: id, group_id })))
			.onConflict(['group_id', 'candidate_id'])
			.ignore();
		const body = { number: change.number, name: fullName(change) };
		await appendToLogbook(trx, [{ at: now, by, kind: 'person_added', body }]);
		return { ok: true, id } as const;
	});
}

function columnsOf({ number, given, family, email, birth, language, grade, userName, elsewhere }: PersonChange) {
	const number_folded = foldNumber(number);
	return { number, number_folded, given, family, email, birth, language, grade, user_name: userName, elsewhere };
}

/** What can't be kept of somebody, and why; null: nothing. @param at whose number may be the same, where they are, and the day there */
async function faultOf(
	trx: Query,
	change: PersonChange,
	at: { but: string; siteId: string; today: string }
): Promise<Exclude<PersonResult, { ok: true }> | null> {
	const folded = foldNumber(change.number);
	if (folded === '') return { ok: false, field: 'number', message: 'A number has at least one letter or digit.' };
	const birth = change.birth && birthFault(change.birth, at.today);
	if (birth) return { ok: false, field: 'birth', message: birth };
	if (change.groupIds.length === 0) return { ok: false, field: 'groupIds', message: 'Choose at least one group.' };
	const namesake = await trx('candidate')
		.join('candidate_group', 'candidate_group.id', 'candidate.group_id')
		.where({ number_folded: folded })
		.whereNot({ 'candidate.id': at.but })
		.first('given', 'family', 'site_id');
	if (!namesake) return null;
	// Who sits at another site is not told by guessing numbers.
	const whose = namesake.site_id === at.siteId ? `${fullName(namesake)}’s number` : 'taken';
	return { ok: false, field: 'number', message: `${change.number} is ${whose} already.` };
}

const HORIZON_MS = 200 * 24 * 3_600_000;

/**
 * Takes a timetable over as the commitments of these candidates; what an earlier file brought is replaced.
 * @returns how many stretches each of them has now, or what is wrong with the file
 */
export async function importTimetable(
	otium: Pick<House, 'db' | 'now' | 'threads'>,
	by: Actor,
	candidateIds: string[],
	text: string,
	zone: string
): Promise<{ ok: true; busy: Busy[]; skipped: string[] } | { ok: false; message: string }> {
	const now = otium.now();
	const read = await readTimetable(otium, text, zone, now - 24 * 3_600_000, now + HORIZON_MS);
	if (!read.ok) return read;
	if (read.busy.length * candidateIds.length > 200_000)
		return { ok: false, message: 'That is too much at once. Import the timetable for a smaller group.' };
	await transact(otium.db, async (trx) => {
		for (let i = 0; i < candidateIds.length; i += 500)
			await trx('commitment')
				.whereIn('candidate_id', candidateIds.slice(i, i + 500))
				.delete();
		const rows = candidateIds.flatMap((candidate_id) =>
			read.busy.map((busy) => ({
				id: nanoid(),
				candidate_id,
				from_at: busy.from,
				to_at: busy.to,
				title: busy.title.slice(0, 120)
			}))
		);
		await insertMany(trx, 'commitment', rows);
		const body = { candidates: candidateIds.length, entries: read.busy.length };
		await appendToLogbook(trx, [{ at: now, by, kind: 'timetable_imported', body }]);
	});
	return read;
}
