import type { Query } from '../db';

/** Of these candidates, how many have a device that was checked and can, and how many one that can't, by their last check. */
export async function devicesReady(db: Query, candidateIds: string[]): Promise<{ ready: number; notReady: number }> {
	const rows: { candidate_id: string; ready: number }[] = await db('device_check')
		.whereIn('candidate_id', candidateIds)
		.orderBy('at')
		.select('candidate_id', 'ready');
	const last = new Map(rows.map((row) => [row.candidate_id, Boolean(row.ready)]));
	const ready = [...last.values()].filter(Boolean).length;
	return { ready, notReady: last.size - ready };
}
