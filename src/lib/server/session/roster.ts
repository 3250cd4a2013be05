import { isUnfinished, type SittingState } from '$core/sitting';
import type { Query } from '../db';
import type { SessionKind } from '$core/session';

/** Who a session would expect. */
export type Roster = {
	groups: { name: string; count: number }[];
	/** In the order in which they are seated; `sittingId` when an existing sitting goes on here. */
	people: { candidateId: string; sittingId: string | null }[];
	/** A sentence for each reason why somebody of these groups is not among them. */
	leftOut: string[];
};

type Row = {
	id: string;
	given: string;
	family: string;
	group_name: string;
	sitting_id: string | null;
	state: SittingState | null;
	session_id: string | null;
	session_name: string | null;
};

/**
 * The candidates of these groups who can sit the paper here. Whoever was absent or carried over goes on with the
 * sitting they have; whoever has handed in, or is expected elsewhere, is left out and named.
 */
export async function rosterFor(
	db: Query,
	of: { administrationId: string; paperId: string; kind: SessionKind; groupIds: string[]; sessionId?: string }
): Promise<Roster> {
	const counts = of.kind !== 'rehearsal';
	const rows: Row[] = await db('candidate')
		.join('candidate_group', 'candidate_group.id', 'candidate.group_id')
		.leftJoin('sitting', (join) =>
			join
				.on('sitting.candidate_id', 'candidate.id')
				.andOnVal('sitting.paper_id', of.paperId)
				.andOnVal('sitting.administration_id', of.administrationId)
				.andOnVal('sitting.counts', counts ? 1 : 0)
		)
		.leftJoin('session', 'session.id', 'sitting.session_id')
		.whereIn('candidate.group_id', of.groupIds)
		.orderBy(['candidate.family', 'candidate.given', 'candidate.number'])
		.select(
			'candidate.id',
			'candidate.given',
			'candidate.family',
			'candidate_group.name as group_name',
			'sitting.id as sitting_id',
			'sitting.state',
			'sitting.session_id',
			'session.name as session_name'
		);

	const here = rows.filter((row) => row.session_id === of.sessionId && of.sessionId !== undefined);
	const others = rows.filter((row) => !here.includes(row));
	const canJoin = (row: Row) =>
		!counts || row.state === null
			? of.kind !== 'make_up' || row.state !== null
			: row.state === 'absent' || row.state === 'carried_over';
	const joining = others.filter(canJoin);
	const staying = others.filter((row) => !canJoin(row));

	const people = rows.filter((row) => here.includes(row) || joining.includes(row));
	const groups = [...new Set(people.map((row) => row.group_name))].map((name) => ({
		name,
		count: people.filter((row) => row.group_name === name).length
	}));
	return {
		groups,
		people: people.map((row) => ({
			candidateId: row.id,
			sittingId: counts ? row.sitting_id : here.includes(row) ? row.sitting_id : null
		})),
		leftOut: [
			...leftOut(
				staying.filter((row) => row.state !== null && isUnfinished(row.state)),
				(row) => `already expected in ${row.session_name}`
			),
			...leftOut(
				staying.filter((row) => row.state !== null && !isUnfinished(row.state)),
				() => 'have sat this paper already'
			)
		]
	};
}

function leftOut(rows: Row[], why: (row: Row) => string): string[] {
	const byReason = new Map<string, string[]>();
	for (const row of rows) byReason.set(why(row), [...(byReason.get(why(row)) ?? []), `${row.given} ${row.family}`]);
	return [...byReason].map(([reason, names]) => `Left out, ${reason}: ${listed(names)}.`);
}

function listed(names: string[]): string {
	return names.length <= 4 ? names.join(', ') : `${names.slice(0, 3).join(', ')} and ${names.length - 3} more`;
}
