import type { RecordVerified } from '$core/logbook';
import { verifyAnswers } from '../answers';
import { verifyRows } from '../db';
import { verifyLogbook } from '../logbook';
import type { House } from '../house';
import { anchorFault, anchorPlaces, furthestAnchor } from './anchor';

/**
 * Works the whole record out anew: the logbook, the answers, what counts of them, the rows that decide results, and whether
 * they reach as far as they once did.
 * @param anchors files that hold anchors, beside those that the house names
 */
export async function verifyRecord(
	{ db, dataDir }: Pick<House, 'db' | 'dataDir'>,
	anchors: string[] = []
): Promise<RecordVerified> {
	const logbook = await verifyLogbook(db);
	const answers = await verifyAnswers(db);
	const rows = await verifyRows(db);
	const anchor = await furthestAnchor(db, [...anchorPlaces(dataDir).files, ...anchors]);
	const broken =
		(logbook.broken && `the logbook breaks at entry ${logbook.broken.seq}: ${logbook.broken.why}`) ??
		answers.broken ??
		(anchor && (await anchorFault(db, anchor))) ??
		rows.broken;
	return {
		entries: logbook.entries,
		answers: answers.answers,
		rows: rows.rows,
		sealedAnew: rows.anew.map((at) => new Date(at).toISOString()),
		head: logbook.head,
		anchoredAt: anchor?.at ?? null,
		broken
	};
}
