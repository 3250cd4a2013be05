import type { RetentionTerms } from '$core/retention';
import { closingOf } from '../closing';
import type { Query } from '../db';
import { PHOTO_KEPT_MS } from '../pictures';
import { goes, waitsFor } from './due';
import { retentionTerms } from './retention-terms';

/** What is kept of people, how much of it is there, and until when. */
export type Kept = {
	what: string;
	there: number;
	/** When the next of it is deleted; null: by a person, or with the whole house. */
	next: number | null;
	/** Deleted already. */
	gone: number;
	how: string;
};

/** What of an administration is about persons, and goes when its time has come. */
export async function retentionOf(db: Query, administrationId: string, now: number): Promise<Kept[]> {
	const sittings = () => db('sitting').where({ administration_id: administrationId }).select('id');
	const candidates = () => db('sitting').where({ administration_id: administrationId }).distinct('candidate_id');
	const count = async (query: ReturnType<Query['queryBuilder']>) =>
		Number(((await query.count({ n: '*' }).first()) as { n: number }).n);
	const next = async (query: ReturnType<Query['queryBuilder']>) =>
		((await query.min({ at: 'keep_until' }).first()) as { at: number | null }).at;
	const pictures = () => db('snapshot').whereIn('sitting_id', sittings());
	const evidence = () =>
		db('evidence').whereIn(
			'id',
			db('grant_given').whereIn('candidate_id', candidates()).whereNotNull('evidence_id').select('evidence_id')
		);
	const terms = await retentionTerms(db);
	const { answers, log } = await goes(db, administrationId, terms);
	const sessions = db('session').where({ administration_id: administrationId }).select('id');
	const entries = () =>
		db('logbook').where((any) => void any.whereIn('session_id', sessions).orWhereIn('sitting_id', sittings()));
	const photos = () => db('candidate').whereIn('candidate.id', candidates()).whereNotNull('photo_at');
	return [
		{
			what: 'Pictures from the camera',
			there: await count(pictures().whereNull('deleted_at')),
			next: await next(pictures().whereNull('deleted_at')),
			gone: await count(pictures().whereNotNull('deleted_at')),
			how: 'deleted by themselves after the days that the session’s rules say'
		},
		{
			what: 'Evidence for grants',
			there: await count(evidence().whereNull('deleted_at')),
			next: await next(evidence().whereNull('deleted_at')),
			gone: await count(evidence().whereNotNull('deleted_at')),
			how: 'sealed; deleted by itself after a year'
		},
		{
			what: 'Photos and PDFs handed in',
			there: await count(db('sitting_file').whereIn('sitting_id', sittings())),
			next: answers.at,
			gone: 0,
			how: 'part of the answers, and of the archive'
		},
		{
			what: 'Photos of candidates',
			there: await count(photos()),
			next: await oldestPhoto(db, photos()),
			gone: 0,
			how: 'deleted by themselves a year after the last session that somebody is expected in; or on the person’s page'
		},
		{
			what: 'Answers, marks and results',
			there: await count(db('answer_standing').whereIn('sitting_id', sittings())),
			next: answers.at,
			gone: answers.done === null ? 0 : await countedAtClosing(db, administrationId),
			how: await answersHow(db, administrationId, terms, answers.at !== null && answers.at <= now ? now : null)
		},
		{
			what: 'What the log says',
			there: await count(entries().whereNull('emptied')),
			next: log.at,
			gone: await count(entries().whereNotNull('emptied')),
			how:
				terms.log === null
					? 'kept with the house'
					: `${inYears(terms.log)} after the closing; that there were such entries, and when, stays`
		}
	].map((one) => ({ ...one, next: one.next !== null && one.next < now ? now : one.next }));
}

const inYears = (years: number) => (years === 1 ? 'a year' : `${years} years`);

async function countedAtClosing(db: Query, administrationId: string): Promise<number> {
	return (await closingOf(db, administrationId))?.counts.answers ?? 0;
}

/** @param dueAt null: their time has not come, so that nothing is waited for yet */
async function answersHow(db: Query, id: string, { answers }: RetentionTerms, dueAt: number | null): Promise<string> {
	if (answers === null) return 'kept with the house. Take names out of a copy of the archive to keep figures alone';
	const waits = dueAt === null ? [] : await waitsFor(db, id, answers, dueAt);
	const also = waits.length === 0 ? '' : `; not before ${waits.join(' and ')}, which some were committed with`;
	return `${inYears(answers)} after the closing, with what was handed in, messages and incidents${also}. The sealed archive stays`;
}

/** When the first of these photos goes, as things are planned now. */
async function oldestPhoto(db: Query, photos: ReturnType<Query['queryBuilder']>): Promise<number | null> {
	const lasts: { photo_at: number; last: number | null }[] = await photos
		.leftJoin('sitting', 'sitting.candidate_id', 'candidate.id')
		.leftJoin('session', 'session.id', 'sitting.session_id')
		.groupBy('candidate.id')
		.select('photo_at')
		.max('session.opens as last');
	const ends = lasts.map(({ photo_at, last }) => Math.max(photo_at, last ?? 0) + PHOTO_KEPT_MS);
	return ends.length === 0 ? null : ends.reduce((a, b) => Math.min(a, b));
}

type Row = Record<string, unknown>;

/** All that is kept about one candidate, for them to have (a subject's right of access). */
export async function subjectData(db: Query, candidateId: string): Promise<Row | null> {
	const candidate: Row | undefined = await db('candidate').where({ id: candidateId }).first();
	if (!candidate) return null;
	const sittings: Row[] = await db('sitting').where({ candidate_id: candidateId }).select('*');
	const ids = sittings.map(({ id }) => id as string);
	const of = (table: string): Promise<Row[]> => db(table).whereIn('sitting_id', ids).select('*');
	return {
		candidate,
		groups: await db('group_member').where({ candidate_id: candidateId }).pluck('group_id'),
		grants: await db('grant_given').where({ candidate_id: candidateId }).select('*'),
		requests: await db('grant_request').where({ candidate_id: candidateId }).select('*'),
		sittings: sittings.map((row) => ({ ...row, fold: JSON.parse(row.fold as string) })),
		answers: await of('answer_standing'),
		shown: await of('question_shown'),
		marks: (await of('hand_mark')).map(({ marker: _, ...row }) => row),
		lapses: await of('lapse'),
		messages: await of('message'),
		pictures: (await of('snapshot')).map(({ id, at, deleted_at }) => ({ id, at, deleted_at })),
		files: (await of('sitting_file')).map(({ id, name, type, at }) => ({ id, name, type, at })),
		incidents: await db('incident_person')
			.join('incident', 'incident.id', 'incident_person.incident_id')
			.whereIn('sitting_id', ids)
			.select('incident.kind', 'happened_at', 'note', 'done', 'sitting_id'),
		decisions: [...(await of('validity')), ...(await of('incident_decision')), ...(await of('waiver'))],
		log: await db('logbook').whereIn('sitting_id', ids).orderBy('seq').select('seq', 'at', 'kind', 'body')
	};
}
