import { nanoid } from 'nanoid';
import { type Change, changesOf } from '$core/correction';
import { insertMany, type Query } from '../db';
import type { RunScore } from './marking-thread';

type NewRun = {
	administration_id: string;
	paper_id: string;
	at: number;
	by: string;
	why: string;
	correction_id: string | null;
};

/** Keeps what every result came to. */
export async function keepRun(trx: Query, run: NewRun, scores: RunScore[]): Promise<void> {
	const id = nanoid();
	await trx('marking_run').insert({ id, ...run });
	await insertMany(
		trx,
		'run_score',
		scores.map(({ sittingId, points, outOf, marks }) => ({
			run_id: id,
			sitting_id: sittingId,
			points,
			out_of: outOf,
			marks
		}))
	);
}

export type Run = {
	id: string;
	at: number;
	by: string;
	why: string;
	correctionId: string | null;
	results: number;
	mean: number | null;
};

/** Every marking that was kept of a paper, the first first. */
export async function runsOf(db: Query, administrationId: string, paperId: string): Promise<Run[]> {
	return db('marking_run')
		.leftJoin('staff', 'staff.id', 'marking_run.by')
		.leftJoin('run_score', 'run_score.run_id', 'marking_run.id')
		.where({ administration_id: administrationId, paper_id: paperId })
		.groupBy('marking_run.id')
		.orderBy(['marking_run.at', 'marking_run.why'])
		.select('marking_run.id', 'marking_run.at', 'staff.name as by', 'why', 'correction_id as correctionId')
		.count('run_score.sitting_id as results')
		.avg('run_score.points as mean');
}

/** How two of them differ. */
export async function compareRuns(db: Query, from: string, to: string): Promise<{ changes: Change[]; of: number }> {
	const read = async (runId: string) => {
		const rows: { sittingId: string; points: number; outOf: number }[] = await db('run_score')
			.where({ run_id: runId })
			.select('sitting_id as sittingId', 'points', 'out_of as outOf');
		return new Map(rows.map((row) => [row.sittingId, { ...row, toMark: 0 }]));
	};
	const [before, after] = [await read(from), await read(to)];
	const pairs = [...before.values()].flatMap((one) => {
		const then = after.get(one.sittingId);
		return then ? [{ before: one, after: then, rules: { passPercent: null, bands: [] } }] : [];
	});
	return { changes: changesOf(pairs), of: pairs.length };
}
