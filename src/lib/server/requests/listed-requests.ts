import { sitesWith, type StaffMember } from '$core/access';
import { fullName } from '$core/names';
import type { AskedAs, RequestState, RequestWhat } from '$core/request';
import type { Query } from '../db';

/** A request as officers and those who asked see it. */
export type Request = {
	id: string;
	siteId: string;
	candidate: { id: string; name: string; number: string };
	session: { id: string; name: string; opens: number; zone: string } | null;
	what: RequestWhat;
	why: string;
	as: AskedAs;
	by: string;
	at: number;
	/** To be decided before then; null: no session says when. */
	neededBy: number | null;
	evidence: string | null;
	state: RequestState;
	decidedBy: string | null;
	decidedAt: number | null;
	note: string | null;
};

export type Row = {
	id: string;
	site_id: string;
	candidate_id: string;
	given: string;
	family: string;
	number: string;
	session_id: string | null;
	session_name: string | null;
	opens: number | null;
	zone: string;
	what: RequestWhat;
	why: string;
	asked_as: AskedAs;
	asked_by: string;
	asked_email: string | null;
	asked_at: number;
	needed_by: number | null;
	evidence_id: string | null;
	state: RequestState;
	decider: string | null;
	decided_at: number | null;
	note: string | null;
};

/** Requests with all that a list shows of them. */
export function requests(db: Query) {
	return db('grant_request')
		.join('candidate', 'candidate.id', 'grant_request.candidate_id')
		.join('site', 'site.id', 'grant_request.site_id')
		.leftJoin('session', 'session.id', 'grant_request.session_id')
		.leftJoin('staff', 'staff.id', 'grant_request.decided_by')
		.select(
			'grant_request.*',
			'candidate.given',
			'candidate.family',
			'candidate.number',
			'session.name as session_name',
			'session.opens',
			'site.zone',
			'staff.name as decider'
		);
}

function toRequest(row: Row): Request {
	return {
		id: row.id,
		siteId: row.site_id,
		candidate: { id: row.candidate_id, name: fullName(row), number: row.number },
		session:
			row.session_id === null
				? null
				: { id: row.session_id, name: row.session_name!, opens: row.opens!, zone: row.zone },
		what: row.what,
		why: row.why,
		as: row.asked_as,
		by: row.asked_by,
		at: row.asked_at,
		neededBy: row.needed_by,
		evidence: row.evidence_id,
		state: row.state,
		decidedBy: row.decider,
		decidedAt: row.decided_at,
		note: row.note
	};
}

const MOST_DECIDED = 100;

/** What waits for a decision, the most urgent first, and what was decided lately, at the sites of whoever asks. */
export async function requestsFor(db: Query, staff: StaffMember): Promise<{ open: Request[]; decided: Request[] }> {
	const sites = sitesWith(staff, 'grant');
	const mine = (query: ReturnType<Query['queryBuilder']>) => {
		if (sites !== null) query.whereIn('grant_request.site_id', sites);
	};
	const open: Row[] = await requests(db).where({ state: 'open' }).modify(mine);
	const decided: Row[] = await requests(db)
		.whereNot({ state: 'open' })
		.modify(mine)
		.orderBy('decided_at', 'desc')
		.limit(MOST_DECIDED);
	const urgency = (row: Row) => row.needed_by ?? Infinity;
	return {
		open: open.sort((a, b) => urgency(a) - urgency(b) || a.asked_at - b.asked_at).map(toRequest),
		decided: decided.map(toRequest)
	};
}

/** How many wait for this person. */
export async function countRequests(db: Query, staff: StaffMember): Promise<number> {
	const sites = sitesWith(staff, 'grant');
	const row = await db('grant_request')
		.where({ state: 'open' })
		.modify((query) => {
			if (sites !== null) query.whereIn('site_id', sites);
		})
		.count('* as n')
		.first();
	return Number(row?.n ?? 0);
}

/** All that was ever asked for one candidate, latest first: the history stays with the person. */
export async function requestsAbout(db: Query, candidateId: string): Promise<Request[]> {
	const rows: Row[] = await requests(db)
		.where({ 'grant_request.candidate_id': candidateId })
		.orderBy('asked_at', 'desc');
	return rows.map(toRequest);
}
