import { rm } from 'node:fs/promises';
import { createHash } from 'node:crypto';
import { join } from 'node:path';
import { nanoid } from 'nanoid';
import { fullName } from '$core/names';
import { fail } from '$core/problem';
import { archivesIn, sealOf } from '../archive';
import { transact, type Query } from '../db';
import type { House } from '../house';
import { sharedBy } from '../identity';
import { appendToLogbook, type NewEntry } from '../logbook';
import { receiptKey } from '../proof';
import { writeWhole } from '../whole-file';
import { closingOf } from './closed';

type Needs = Pick<House, 'db' | 'now' | 'dataDir'>;

/** What was found after a closing. It changes nothing of what was sealed, and lies beside it, signed by two persons. */
export type Addendum = {
	id: string;
	candidate: string | null;
	text: string;
	proposedBy: { id: string; name: string };
	proposedAt: number;
	state: 'waits' | 'stands' | 'declined';
	decidedBy: string | null;
	sha256: string | null;
};

type Row = {
	id: string;
	administration_id: string;
	sitting_id: string | null;
	body: string;
	proposed_by: string;
	proposed_at: number;
	confirmed_by: string | null;
	confirmed_at: number | null;
	declined_at: number | null;
	sha256: string | null;
	proposer: string;
	decider: string | null;
	given: string | null;
	family: string | null;
};

export async function addendaOf(db: Query, administrationId: string): Promise<Addendum[]> {
	const rows: Row[] = await db('addendum')
		.leftJoin('staff as one', 'one.id', 'addendum.proposed_by')
		.leftJoin('staff as other', (join) =>
			join.on('other.id', 'addendum.confirmed_by').orOn('other.id', 'addendum.declined_by')
		)
		.leftJoin('sitting', 'sitting.id', 'addendum.sitting_id')
		.leftJoin('candidate', 'candidate.id', 'sitting.candidate_id')
		.where({ 'addendum.administration_id': administrationId })
		.orderBy('proposed_at')
		.select('addendum.*', 'one.name as proposer', 'other.name as decider', 'given', 'family');
	return rows.map((row) => ({
		id: row.id,
		candidate: row.given === null ? null : fullName({ given: row.given, family: row.family! }),
		text: (JSON.parse(row.body) as { text: string }).text,
		proposedBy: { id: row.proposed_by, name: row.proposer },
		proposedAt: row.proposed_at,
		state: row.confirmed_at !== null ? 'stands' : row.declined_at !== null ? 'declined' : 'waits',
		decidedBy: row.decider,
		sha256: row.sha256
	}));
}

/** Proposes one. @throws ProblemError while the administration is open, where corrections are made instead */
export async function proposeAddendum(
	otium: Needs,
	by: NewEntry['by'],
	asked: { id: string; administrationId: string; number: string | null; text: string }
): Promise<void> {
	if (!(await closingOf(otium.db, asked.administrationId)))
		fail('not_taken', { message: 'This administration is still open.', instead: 'Correct it where it is wrong.' });
	const at = otium.now();
	await transact(otium.db, async (trx) => {
		if (await trx('addendum').where({ id: asked.id }).first('id')) return;
		const sitting = asked.number === null ? null : await sittingOf(trx, asked.administrationId, asked.number);
		await trx('addendum').insert({
			id: asked.id,
			administration_id: asked.administrationId,
			sitting_id: sitting,
			body: JSON.stringify({ text: asked.text }),
			proposed_by: by.id,
			proposed_at: at
		});
		await appendToLogbook(trx, [
			{
				at,
				by,
				kind: 'addendum_proposed',
				sittingId: sitting,
				body: { administrationId: asked.administrationId, addendum: asked.id, text: asked.text }
			}
		]);
	});
}

async function sittingOf(db: Query, administrationId: string, number: string): Promise<string> {
	const row: { id: string } | undefined = await db('sitting')
		.join('candidate', 'candidate.id', 'sitting.candidate_id')
		.where({ administration_id: administrationId, 'candidate.number': number })
		.orderBy('attempt', 'desc')
		.first('sitting.id');
	return (
		row?.id ??
		fail('not_taken', { message: `No candidate ${number} sat in this administration.`, instead: 'Check the number.' })
	);
}

/** Confirms or declines one: by another person than the one who proposed it. A confirmed one is sealed in a file of its own. */
export async function decideAddendum(
	otium: Needs,
	by: NewEntry['by'],
	id: string,
	isConfirmed: boolean
): Promise<void> {
	const at = otium.now();
	const row: Row | undefined = await otium.db('addendum').where({ id }).first();
	if (!row) fail('not_found');
	if (row.confirmed_at !== null || row.declined_at !== null)
		fail('not_taken', { message: 'This addendum was decided already.', instead: 'Look at the list again.' });
	if (isConfirmed && row.proposed_by === by.id)
		fail('not_taken', { message: 'You proposed this addendum, so another person confirms it.' });
	const closing = (await closingOf(otium.db, row.administration_id))!;
	const text = JSON.stringify(
		{
			format: 'otium addendum',
			version: 1,
			archive: closing.sha256,
			administration: row.administration_id,
			sitting: row.sitting_id,
			text: (JSON.parse(row.body) as { text: string }).text,
			proposedBy: row.proposed_by,
			confirmedBy: by.id,
			at: new Date(at).toISOString(),
			key: receiptKey(otium.db)
		},
		null,
		'\t'
	);
	const sha256 = createHash('sha256').update(text).digest('hex');
	// A name of ours, and another for each decision: of two at once, neither writes over what the other has sealed.
	const file = `addendum-${nanoid()}.json`;
	const sealed = JSON.stringify({ text, seal: sealOf(otium.db, 'addendum', sha256) });
	const shares = isConfirmed ? await sharedBy(otium.db, row.proposed_by, by.id) : [];
	if (isConfirmed) await writeWhole(join(archivesIn(otium.dataDir), file), sealed);
	try {
		await transact(otium.db, async (trx) => {
			const done = await trx('addendum')
				.where({ id, confirmed_at: null, declined_at: null })
				.update(
					isConfirmed
						? { confirmed_by: by.id, confirmed_at: at, file, sha256 }
						: { declined_by: by.id, declined_at: at }
				);
			if (done === 0) fail('not_taken', { message: 'This addendum was decided already.' });
			await appendToLogbook(trx, [
				{
					at,
					by,
					kind: isConfirmed ? 'addendum_confirmed' : 'addendum_declined',
					sittingId: row.sitting_id,
					body: {
						administrationId: row.administration_id,
						addendum: id,
						...(isConfirmed ? { sha256 } : {}),
						...(shares.length > 0 && { shares })
					}
				}
			]);
		});
	} catch (error) {
		if (isConfirmed) await rm(join(archivesIn(otium.dataDir), file), { force: true });
		throw error;
	}
}
