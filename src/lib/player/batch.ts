import type { Revision } from '$core/paper';

/** So many go in one request; a long silence is told in several. */
const BATCH = 200;
/** Well below what the server reads at once. An essay comes whole with every rest of the typing. */
const BATCH_BYTES = 256 * 1024;

/** The last revision of each question in the order of their numbers, and the earlier ones that go with each. */
export function lastOfEach(revisions: Revision[]): { last: Revision[]; covered: Map<number, number[]> } {
	const byQuestion = new Map<string, Revision[]>();
	for (const revision of revisions) {
		const list = byQuestion.get(revision.questionId);
		if (list) list.push(revision);
		else byQuestion.set(revision.questionId, [revision]);
	}
	const last: Revision[] = [];
	const covered = new Map<number, number[]>();
	for (const list of byQuestion.values()) {
		const newest = list.at(-1)!;
		last.push(newest);
		covered.set(
			newest.seq,
			list.slice(0, -1).map((one) => one.seq)
		);
	}
	return { last: last.sort((a, b) => a.seq - b.seq), covered };
}

/** As many as fit into one request, at least one. */
export function cut<T>(rows: T[], most = BATCH, bytes = BATCH_BYTES): T[] {
	const encoder = new TextEncoder();
	let [count, size] = [0, 0];
	for (const row of rows.slice(0, most)) {
		size += encoder.encode(JSON.stringify(row)).length;
		if (count > 0 && size > bytes) break;
		count++;
	}
	return rows.slice(0, count);
}
