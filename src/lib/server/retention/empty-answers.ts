import { emptiedGroup, EMPTIED_TABLES, overwriting, transact, type AnswerGroup, type Db } from '../db';
import { giveWay, inParts } from '../event-loop';
import { dropHanded } from '../handed';
import type { House } from '../house';
import { dropUnchained } from '../logbook';
import { dueFor, waitsFor } from './due';

type Needs = Pick<House, 'db' | 'now' | 'dataDir'>;

/** So many sittings are emptied before everything else has its turn. */
const AT_ONCE = 20;

/**
 * Deletes the answers of administrations whose time has come, with what was handed in, how it was marked and what was
 * written about those who sat them. Interrupted, it goes on where it was. Returns how many answers are gone.
 */
export async function deleteOldAnswers(otium: Needs, years: number): Promise<number> {
	const { db } = otium;
	let count = 0;
	for (const { id } of await dueFor(db, 'answers', years, otium.now())) {
		if ((await waitsFor(db, id, years, otium.now())).length > 0) continue;
		await db('emptied')
			.insert({ administration_id: id, what: 'answers', at: otium.now(), done_at: null })
			.onConflict()
			.ignore();
		await overwriting(db, async () => {
			const sittings: string[] = await db('sitting').where({ administration_id: id }).orderBy('id').pluck('id');
			await markGroups(db, sittings);
			count += await emptySittings(otium, sittings);
			await emptySessions(db, id);
		});
		await db('emptied').where({ administration_id: id, what: 'answers' }).update({ done_at: otium.now() });
	}
	return count;
}

/** First of all: a group that is marked is proven by its digest, whether its answers are still there or not. */
async function markGroups(db: Db, sittings: string[]): Promise<void> {
	for await (const ids of inParts(sittings, AT_ONCE)) {
		const own = db('answer').whereIn('sitting_id', ids).whereNotNull('group_seq').distinct('group_seq');
		const groups: AnswerGroup[] = await db('answer_group').whereIn('seq', own).whereNull('emptied');
		await transact(db, async (trx) => {
			for (const group of groups)
				await trx('answer_group')
					.where({ seq: group.seq })
					.update({ emptied: emptiedGroup(trx, group) });
		});
	}
}

/** What counts of a sitting and what it follows from go together, so that the record is whole at every moment. */
async function emptySittings(otium: Needs, sittings: string[]): Promise<number> {
	const { db } = otium;
	let count = 0;
	for await (const ids of inParts(sittings, AT_ONCE)) {
		await transact(db, async (trx) => {
			await dropUnchained(trx, ids);
			for (const table of EMPTIED_TABLES.bySitting) {
				const gone = await trx(table).whereIn('sitting_id', ids).delete();
				if (table === 'answer') count += gone;
			}
		});
		for (const id of ids) await dropHanded(otium, id);
	}
	return count;
}

async function emptySessions(db: Db, administrationId: string): Promise<void> {
	const sessions: string[] = await db('session').where({ administration_id: administrationId }).pluck('id');
	for (const id of sessions) {
		await transact(db, async (trx) => {
			const incidents = trx('incident').where({ session_id: id }).select('id');
			for (const table of EMPTIED_TABLES.byIncident)
				await trx(table).whereIn('incident_id', incidents.clone()).delete();
			for (const table of EMPTIED_TABLES.bySession) await trx(table).where({ session_id: id }).delete();
		});
		await giveWay();
	}
	for (const table of EMPTIED_TABLES.byAdministration)
		await db(table).where({ administration_id: administrationId }).delete();
}
