import { nanoid } from 'nanoid';
import { foldNumber } from '$core/access';
import type { Grant, GrantBody } from '$core/grants';
import type { ImportPlan, KnownPerson, PersonEntry } from '$core/people';
import type { Actor } from '$core/sitting';
import { insertMany, type Query } from '../db';
import { giveWay } from '../event-loop';
import { insertGrants } from '../grants';
import { refreshDerivedColumns } from '../sitting';
import { NO_GROUP } from './known';

/** How many rows are written before others get a turn and progress is told. */
const CHUNK = 100;

/**
 * Writes what an import planned, in the transaction given.
 * @param told called as it goes, with rows done and rows there are
 */
export async function writePeople(
	trx: Query,
	siteId: string,
	plan: ImportPlan,
	leave: boolean,
	by: Actor,
	now: number,
	told: (done: number, total: number) => void | Promise<void>
): Promise<void> {
	const groups = await groupsOf(trx, siteId, plan);
	const leaving = leave ? plan.missing.map((person) => person.id) : [];
	const total = plan.add.length + plan.change.length + leaving.length;
	let done = 0;
	const times: TimeChange[] = [];

	for (const part of chunks(plan.add)) {
		const rows = part.map((entry) => ({ id: nanoid(), entry }));
		await trx('candidate').insert(
			rows.map(({ id, entry }) => ({
				id,
				...columnsOf(entry),
				group_id: groups.get(entry.groups?.[0] ?? NO_GROUP)!
			}))
		);
		const others = rows.flatMap(({ id, entry }) =>
			(entry.groups ?? []).slice(1).map((name) => ({ candidate_id: id, group_id: groups.get(name)! }))
		);
		await insertMany(trx, 'group_member', others);
		times.push(...rows.map(({ id, entry }) => ({ candidateId: id, entry, before: null })));
		await told((done += part.length), total);
	}
	for (const part of chunks(plan.change)) {
		for (const { person, entry } of part) {
			await changeOne(trx, person, entry, groups, now);
			times.push({ candidateId: person.id, entry, before: person });
		}
		await told((done += part.length), total);
	}
	for (const part of chunks(leaving)) {
		await trx('candidate').whereIn('id', part).update({ left_at: now });
		await told((done += part.length), total);
	}
	await writeTimes(trx, times, by, now);
}

function* chunks<T>(all: T[]): Generator<T[]> {
	for (let i = 0; i < all.length; i += CHUNK) yield all.slice(i, i + CHUNK);
}

/** Ids of all groups that the plan names, the new ones made. */
async function groupsOf(trx: Query, siteId: string, plan: ImportPlan): Promise<Map<string, string>> {
	const rows: { id: string; name: string }[] = await trx('candidate_group')
		.where({ site_id: siteId })
		.select('id', 'name');
	const groups = new Map(rows.map((row) => [row.name, row.id]));
	const loose = [...plan.add, ...plan.change.map((change) => change.entry)].some(
		(entry) => (entry.groups ?? []).length === 0
	);
	for (const name of [...plan.newGroups, ...(loose && !groups.has(NO_GROUP) ? [NO_GROUP] : [])]) {
		const id = nanoid();
		await trx('candidate_group').insert({ id, site_id: siteId, name });
		groups.set(name, id);
	}
	return groups;
}

/** The columns that an entry tells of; what it does not tell of is left as it is. */
function columnsOf(entry: PersonEntry): Record<string, unknown> {
	const columns: Record<string, unknown> = {
		number: entry.number,
		number_folded: foldNumber(entry.number),
		given: entry.given,
		family: entry.family
	};
	if (entry.email !== undefined) columns.email = entry.email;
	if (entry.birth !== undefined) columns.birth = entry.birth;
	if (entry.language !== undefined) columns.language = entry.language;
	if (entry.grade !== undefined) columns.grade = entry.grade;
	if (entry.userName !== undefined) columns.user_name = entry.userName;
	if (entry.elsewhere !== undefined) columns.elsewhere = entry.elsewhere;
	if (entry.sourceId !== undefined) columns.source_id = entry.sourceId;
	return columns;
}

async function changeOne(
	trx: Query,
	person: KnownPerson,
	entry: PersonEntry,
	groups: Map<string, string>,
	now: number
) {
	const home = entry.groups === undefined ? {} : { group_id: groups.get(entry.groups[0] ?? NO_GROUP)! };
	if (entry.groups !== undefined) await trx('group_member').where({ candidate_id: person.id }).delete();
	await trx('candidate')
		.where({ id: person.id })
		.update({ ...columnsOf(entry), ...home, left_at: entry.leaves ? now : null });
	if (entry.groups !== undefined) {
		// The home group is put back by the database when it did not change; here it is made sure of.
		const rows = [...new Set([home.group_id!, ...entry.groups.map((name) => groups.get(name)!)])];
		await trx('group_member')
			.insert(rows.map((group_id) => ({ candidate_id: person.id, group_id })))
			.onConflict(['group_id', 'candidate_id'])
			.ignore();
	}
}

const STANDING_KINDS = ['extra_time', 'separate_room', 'unlimited_time', 'display'] as const;
type Standing = Partial<Record<(typeof STANDING_KINDS)[number], GrantBody | null>>;
const NO_NEEDS = { extraTime: { factor: 1, minutes: 0 }, separateRoom: false, unlimited: false, display: null };

/** The standing accommodations that an entry tells of, as grants; null: it says that there is none. */
function standingOf(entry: Pick<PersonEntry, 'extraTime' | 'separateRoom' | 'unlimited' | 'display'>): Standing {
	const { extraTime, separateRoom, unlimited, display } = entry;
	const hasTime = extraTime && (extraTime.factor > 1 || extraTime.minutes > 0);
	return {
		...(extraTime && { extra_time: hasTime ? { kind: 'extra_time', ...extraTime } : null }),
		...(separateRoom !== undefined && { separate_room: separateRoom ? { kind: 'separate_room' } : null }),
		...(unlimited !== undefined && { unlimited_time: unlimited ? { kind: 'unlimited_time' } : null }),
		...(display !== undefined && { display: display && { kind: 'display', ...display } })
	};
}

type TimeChange = { candidateId: string; entry: PersonEntry; before: KnownPerson | null };

/**
 * Standing accommodations that the file tells of and that differ: those that an earlier file brought are withdrawn, never
 * deleted; what was given by hand stays.
 */
async function writeTimes(trx: Query, changes: TimeChange[], by: Actor, now: number) {
	const given: Grant[] = [];
	const withdrawn: { candidateId: string; kind: GrantBody['kind'] }[] = [];
	const give = (candidateId: string, body: GrantBody) =>
		given.push({
			id: nanoid(),
			candidateId,
			scope: { kind: 'standing' },
			body,
			reason: 'Imported with the candidate',
			givenBy: by.id,
			givenAt: now,
			withdrawnAt: null,
			source: 'profile'
		});
	for (const [i, { candidateId, entry, before }] of changes.entries()) {
		if (i % CHUNK === 0) await giveWay();
		const [holds, was] = [standingOf(before ?? NO_NEEDS), standingOf(before?.byFile ?? NO_NEEDS)];
		const becomes = standingOf(entry);
		for (const kind of STANDING_KINDS) {
			const [old, body] = [was[kind], becomes[kind]];
			// What the file does not tell of stays as it is, and so does what holds already.
			const isSame = (other: GrantBody | null | undefined) => JSON.stringify(body) === JSON.stringify(other);
			if (body === undefined || isSame(old) || isSame(holds[kind])) continue;
			if (old) withdrawn.push({ candidateId, kind });
			if (body) give(candidateId, body);
		}
	}
	for (const [i, { candidateId, kind }] of withdrawn.entries()) {
		if (i % CHUNK === 0) await giveWay();
		await trx('grant_given')
			.where({ candidate_id: candidateId, kind, scope_kind: 'standing', source: 'profile' })
			.whereNull('withdrawn_at')
			.update({ withdrawn_at: now });
	}
	await insertGrants(trx, given);
	const touched = [
		...new Set([...given.map((grant) => grant.candidateId!), ...withdrawn.map((one) => one.candidateId)])
	];
	for (const part of chunks(touched)) {
		const sittings: string[] = await trx('sitting')
			.whereIn('candidate_id', part)
			.whereNot('state', 'set_aside')
			.pluck('id');
		await refreshDerivedColumns(trx, sittings, now);
		await giveWay();
	}
	// What is committed now is a large piece by itself.
	await giveWay();
}
