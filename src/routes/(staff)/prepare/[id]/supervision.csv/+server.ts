import { addressOf } from '$lib/server/house-card';
import { download, inSession, route } from '$lib/server/http';
import { writeCsv } from '$core/formats';
import { plainName } from '$core/names';
import { fail } from '$core/problem';
import { transact } from '$lib/server/db';
import { appendToLogbook } from '$lib/server/logbook';
import { slipsFor } from '$lib/server/session';

type Row = { number: string; given: string; family: string; email: string | null; code: string | null };

/** For an outside supervision service: the fields that were chosen, in their order. */
export const GET = route(inSession('prepare'), async ({ otium, session, by, url }) => {
	const address = await addressOf(otium.db, url);
	const fields: Record<string, { name: string; of: (row: Row) => string }> = {
		number: { name: 'Number', of: (row) => row.number },
		name: { name: 'Name', of: (row) => plainName(row) },
		email: { name: 'E-mail', of: (row) => row.email ?? '' },
		address: { name: 'Personal address', of: (row) => (row.code ? `${address}/sit?code=${row.code}` : '') }
	};
	const chosen = (url.searchParams.get('fields') ?? 'number,name,email')
		.split(',')
		.filter((field) => Object.hasOwn(fields, field));
	const found: (Omit<Row, 'code'> & { id: string })[] = await otium
		.db('roster')
		.join('sitting', 'sitting.id', 'roster.sitting_id')
		.join('candidate', 'candidate.id', 'sitting.candidate_id')
		.where('roster.session_id', session.id)
		.orderBy(['family', 'given'])
		.select('sitting.id', 'number', 'given', 'family', 'email');
	if (chosen.includes('address') && !session.rules.door.slips)
		fail('not_taken', {
			message: 'Personal addresses open nothing here: the rules of this session have slips switched off.',
			instead: 'Switch slips on under “Door”, or take the file without addresses.'
		});
	// A personal address is made with the first file that asks for one, printed or not.
	const codes = chosen.includes('address')
		? await slipsFor(
				otium.db,
				found.map((row) => row.id)
			)
		: new Map<string, string>();
	const rows: Row[] = found.map((row) => ({ ...row, code: codes.get(row.id) ?? null }));
	await transact(otium.db, (trx) =>
		appendToLogbook(trx, [
			{ at: otium.now(), by, kind: 'roster_exported', sessionId: session.id, body: { fields: chosen } }
		])
	);
	const csv = writeCsv([
		chosen.map((field) => fields[field].name),
		...rows.map((row) => chosen.map((field) => fields[field].of(row)))
	]);
	return download(`${session.name} supervision.csv`, 'text/csv; charset=utf-8', csv);
});
