import { allowSession, download } from '$lib/server/http';
import { toCsv } from '$lib/server/people';
import { transact } from '$lib/server/db';
import { appendToLogbook } from '$lib/server/logbook';
import type { RequestHandler } from './$types';

type Row = { number: string; given: string; family: string; email: string | null; code: string | null };

/** For a supervision service outside: the fields that were chosen, in their order. */
export const GET: RequestHandler = async (event) => {
	const allowed = await allowSession(event, event.params.id, 'prepare');
	if (!allowed.ok) return allowed.response;
	const { otium, session, by } = allowed;
	const fields: Record<string, { name: string; of: (row: Row) => string }> = {
		number: { name: 'Number', of: (row) => row.number },
		name: { name: 'Name', of: (row) => `${row.given} ${row.family}` },
		email: { name: 'E-mail', of: (row) => row.email ?? '' },
		address: { name: 'Personal address', of: (row) => (row.code ? `${event.url.origin}/sit?code=${row.code}` : '') }
	};
	const chosen = (event.url.searchParams.get('fields') ?? 'number,name,email')
		.split(',')
		.filter((field) => field in fields);
	const rows: Row[] = await otium
		.db('roster')
		.join('sitting', 'sitting.id', 'roster.sitting_id')
		.join('candidate', 'candidate.id', 'sitting.candidate_id')
		.leftJoin('slip', 'slip.sitting_id', 'sitting.id')
		.where('roster.session_id', session.id)
		.orderBy(['family', 'given'])
		.select('number', 'given', 'family', 'email', 'slip.code');
	await transact(otium.db, (trx) =>
		appendToLogbook(trx, [
			{ at: otium.now(), by, kind: 'roster_exported', sessionId: session.id, body: { fields: chosen } }
		])
	);
	const csv = toCsv(
		chosen.map((field) => fields[field].name),
		rows.map((row) => chosen.map((field) => fields[field].of(row)))
	);
	return download(`${session.name} supervision.csv`, 'text/csv; charset=utf-8', csv);
};
