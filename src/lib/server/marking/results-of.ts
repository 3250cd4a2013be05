import { completeRules, type SessionRules } from '$core/session';
import type { Sitting } from '$core/sitting';
import type { Query } from '../db';
import { inParts } from '../event-loop';
import { readOnce } from './read-once';

/** A sitting whose work counts: handed in or out of time, no rehearsal, and not void by its rules. */
export type Counting = {
	sittingId: string;
	candidateId: string;
	number: string;
	given: string;
	family: string;
	language: string | null;
	attempt: number;
	seat: string | null;
	administrationId: string;
	paperId: string;
	sessionId: string;
	session: string;
	siteId: string;
	site: string;
	rules: SessionRules;
	fold: Sitting;
	/** What the system that the candidate came from calls them; null: they came from none. */
	sourceId: string | null;
	groupId: string;
	/** Working time that they had left when they handed in, ms; null: none, or another handed in for them. */
	leftMs: number | null;
};

type Row = Omit<Counting, 'rules' | 'fold' | 'leftMs'> & { rules: string; fold: string };

/**
 * Sittings whose work counts, by number and attempt; none of administrations whose answers were deleted in their time.
 * @param narrow which: by administration, paper, session or site
 */
export async function countingSittings(
	db: Query,
	narrow: (query: ReturnType<Query['queryBuilder']>) => void
): Promise<Counting[]> {
	const asked = counted(db).orderBy(['candidate.number', 'sitting.attempt']);
	narrow(asked);
	const ids: string[] = await asked.pluck('sitting.id');
	// Rules of a session are the same text for all of its sittings.
	const rulesOf = readOnce((text) => completeRules(JSON.parse(text)), Infinity);
	const counting: Counting[] = [];
	for await (const part of inParts(ids, READ_AT_ONCE)) {
		const rows: Row[] = await counted(db)
			.leftJoin('roster', (join) =>
				join.on('roster.sitting_id', 'sitting.id').andOn('roster.session_id', 'sitting.session_id')
			)
			.whereIn('sitting.id', part)
			.select(
				'sitting.id as sittingId',
				'sitting.candidate_id as candidateId',
				'candidate.source_id as sourceId',
				'candidate.group_id as groupId',
				'candidate.number',
				'candidate.given',
				'candidate.family',
				'candidate.language',
				'sitting.attempt',
				'roster.seat',
				'sitting.administration_id as administrationId',
				'sitting.paper_id as paperId',
				'sitting.session_id as sessionId',
				'session.name as session',
				'site.id as siteId',
				'site.name as site',
				'session.rules',
				'sitting.fold'
			);
		const byId = new Map(rows.map((row) => [row.sittingId, row]));
		for (const id of part) {
			const row = byId.get(id);
			const fold = row && (JSON.parse(row.fold) as Sitting);
			if (fold && !fold.ended?.countsNothing)
				counting.push({ ...row, rules: rulesOf(row.rules), fold, leftMs: fold.ended?.leftMs ?? null });
		}
	}
	return counting;
}

/** So many are read before everything else has its turn. */
const READ_AT_ONCE = 250;

function counted(db: Query): ReturnType<Query['queryBuilder']> {
	return db('sitting')
		.join('candidate', 'candidate.id', 'sitting.candidate_id')
		.join('session', 'session.id', 'sitting.session_id')
		.join('room', 'room.id', 'session.room_id')
		.join('site', 'site.id', 'room.site_id')
		.where('sitting.counts', 1)
		.whereIn('sitting.state', ['handed_in', 'time_up'])
		.whereNotIn('sitting.administration_id', db('emptied').where({ what: 'answers' }).select('administration_id'));
}

/** So many forms are held at once, and what is done with them is done before everything else has its turn. */
const AT_ONCE = 25;

/** The same with their forms, part by part. */
export async function* withForms(db: Query, sittings: Counting[]): AsyncGenerator<(Counting & { form: string })[]> {
	for await (const part of inParts(sittings, AT_ONCE)) {
		const rows: { sitting_id: string; form: string }[] = await db('form').whereIn(
			'sitting_id',
			part.map(({ sittingId }) => sittingId)
		);
		const forms = new Map(rows.map((row) => [row.sitting_id, row.form]));
		yield part.flatMap((one) => {
			const form = forms.get(one.sittingId);
			return form === undefined ? [] : [{ ...one, form }];
		});
	}
}
