import { fail } from '$core/problem';
import { mkdir } from 'node:fs/promises';
import { join } from 'node:path';
import type { Incident, IncidentKind } from '$core/incident';
import { fullName } from '$core/names';
import type { Actor } from '$core/sitting';
import { insertMany, type Query, transact } from '../db';
import { giveGrant, withdrawGrant } from '../grants';
import { appendToLogbook } from '../logbook';
import type { House } from '../house';
import { sittingsHere } from '../sitting';
import { writeWhole } from '../whole-file';

/** What this needs of the house. */
type Needs = Pick<House, 'db' | 'now' | 'hub' | 'dataDir'>;

/** What is told of an incident. `id` is the teller's own: told twice, it is kept once. */
export type NewIncident = {
	id: string;
	kind: IncidentKind;
	happenedAt: number;
	note: string;
	done: string;
	minutes: number;
	sittingIds: string[];
	attachment: { name: string; type: string; bytes: Uint8Array } | null;
};

type Row = {
	id: string;
	session_id: string;
	kind: IncidentKind;
	happened_at: number;
	note: string;
	done: string;
	minutes: number;
	grant_ids: string;
	attachment_name: string | null;
	attachment_type: string | null;
	told_by: string;
	told_at: number;
	withdrawn_at: number | null;
	teller: string | null;
};

/** Keeps it, and gives the lost time back to everyone in it. */
export async function tellIncident(otium: Needs, by: Actor, sessionId: string, told: NewIncident): Promise<void> {
	const people = await sittingsHere(otium.db, sessionId, told.sittingIds);
	const known: Row | undefined = await otium.db('incident').where({ id: told.id }).first();
	if (known) return giveWhatIsMissing(otium, by, sessionId, known);
	if (told.attachment) {
		await mkdir(join(otium.dataDir, 'attachments'), { recursive: true });
		await writeWhole(attachmentPath(otium, told.id), told.attachment.bytes);
	}
	const now = otium.now();
	await transact(otium.db, async (trx) => {
		await trx('incident').insert({
			id: told.id,
			session_id: sessionId,
			kind: told.kind,
			happened_at: told.happenedAt,
			note: told.note,
			done: told.done,
			minutes: told.minutes,
			grant_ids: JSON.stringify(told.minutes > 0 ? people.map((person) => `${told.id}:${person.id}`) : []),
			attachment_name: told.attachment?.name ?? null,
			attachment_type: told.attachment?.type ?? null,
			told_by: by.id,
			told_at: now
		});
		const rows = people.map((person) => ({ incident_id: told.id, sitting_id: person.id }));
		await insertMany(trx, 'incident_person', rows);
		await appendToLogbook(trx, [
			{
				at: now,
				by,
				kind: 'incident_told',
				sessionId,
				body: { incident: told.id, what: told.kind, note: told.note, people: people.length, minutes: told.minutes }
			}
		]);
	});
	// After the record, each under its own id: should this break off, telling it again gives what is missing.
	await giveBack(otium, by, sessionId, told, people);
	otium.hub.changed(sessionId);
}

/** Told once more: its minutes, as they stand in the record. What is sent the second time gives nobody anything. */
async function giveWhatIsMissing(otium: Needs, by: Actor, sessionId: string, known: Row): Promise<void> {
	if (known.session_id !== sessionId || known.told_by !== by.id) fail('not_yours');
	if (known.withdrawn_at !== null) return;
	const ids: string[] = await otium.db('incident_person').where({ incident_id: known.id }).pluck('sitting_id');
	await giveBack(otium, by, sessionId, known, await sittingsHere(otium.db, sessionId, ids));
}

async function giveBack(
	otium: Needs,
	by: Actor,
	sessionId: string,
	told: Pick<NewIncident, 'id' | 'minutes' | 'note'>,
	people: { id: string; candidate_id: string }[]
) {
	if (told.minutes === 0) return;
	for (const person of people) {
		await giveGrant(otium, by, `${told.id}:${person.id}`, {
			candidateId: person.candidate_id,
			scope: { kind: 'session', id: sessionId },
			body: { kind: 'credit', minutes: told.minutes },
			reason: told.note,
			givenBy: by.id,
			givenAt: otium.now()
		});
	}
}

/**
 * Takes it back, with the minutes that it gave; it stays in the record. A report is of whoever told it: another proctor,
 * whom it may concern, can't make it go.
 * @param mayAny they oversee the session, and take back what others told
 * @returns false: there is none, or it was taken back already
 * @throws ProblemError not_yours; not_taken when somebody has decided about it
 */
export async function withdrawIncident(
	otium: Needs,
	by: Actor,
	sessionId: string,
	id: string,
	mayAny: boolean
): Promise<boolean> {
	const row = (await otium.db('incident').where({ id, session_id: sessionId, withdrawn_at: null }).first()) as
		| Row
		| undefined;
	if (!row) return false;
	if (row.told_by !== by.id && !mayAny)
		fail('not_yours', {
			message: 'Somebody else reported this incident.',
			instead: 'They can withdraw it, or a coordinator.'
		});
	if (await otium.db('incident_decision').where({ incident_id: id }).first('id'))
		fail('not_taken', {
			message: 'This incident has been decided about: the report stays.',
			instead: 'Whoever decided can change the decision under Close-out.'
		});
	for (const grantId of JSON.parse(row.grant_ids) as string[]) await withdrawGrant(otium, by, grantId);
	const now = otium.now();
	await transact(otium.db, async (trx) => {
		await trx('incident').where({ id }).update({ withdrawn_at: now });
		await appendToLogbook(trx, [
			{ at: now, by, kind: 'incident_withdrawn', sessionId, body: { incident: id, what: row.kind, note: row.note } }
		]);
	});
	otium.hub.changed(sessionId);
	return true;
}

/**
 * The incidents of a session, latest first; those taken back are left out. With a sitting, those in which that candidate
 * was.
 */
export async function incidentsOf(db: Query, sessionId: string, sittingId?: string): Promise<Incident[]> {
	const rows: Row[] = await db('incident')
		.leftJoin('staff', 'staff.id', 'incident.told_by')
		.where({ session_id: sessionId, withdrawn_at: null })
		.modify((query) => {
			if (sittingId === undefined) return;
			query.whereIn('incident.id', db('incident_person').where({ sitting_id: sittingId }).select('incident_id'));
		})
		.orderBy('happened_at', 'desc')
		.select('incident.*', 'staff.name as teller');
	const people: { incident_id: string; sitting_id: string; given: string; family: string }[] = await db(
		'incident_person'
	)
		.join('sitting', 'sitting.id', 'incident_person.sitting_id')
		.join('candidate', 'candidate.id', 'sitting.candidate_id')
		.whereIn(
			'incident_id',
			rows.map((row) => row.id)
		)
		.select('incident_id', 'sitting_id', 'given', 'family');
	return rows.map((row) => ({
		id: row.id,
		kind: row.kind,
		happenedAt: row.happened_at,
		note: row.note,
		done: row.done,
		minutes: row.minutes,
		people: people
			.filter((person) => person.incident_id === row.id)
			.map((person) => ({ sittingId: person.sitting_id, name: fullName(person) })),
		attachment: row.attachment_name,
		toldBy: row.teller ?? row.told_by,
		tellerId: row.told_by,
		toldAt: row.told_at
	}));
}

/** An attachment as it was given; null: there is none. */
export async function attachmentOf(
	otium: Needs,
	sessionId: string,
	id: string
): Promise<{ path: string; name: string; type: string } | null> {
	const row = (await otium.db('incident').where({ id, session_id: sessionId }).first()) as Row | undefined;
	if (!row?.attachment_name) return null;
	return { path: attachmentPath(otium, id), name: row.attachment_name, type: row.attachment_type! };
}

/** Ids come from outside; only what `nanoid` draws may become a file's name. */
function attachmentPath(otium: Needs, id: string): string {
	if (!/^[\w-]{8,64}$/.test(id)) throw new Error('not an incident id');
	return join(otium.dataDir, 'attachments', id);
}
