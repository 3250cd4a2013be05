import { roleFor } from '$core/access';
import { fail } from '$core/problem';
import { closingOf, mustBeForAll } from '$lib/server/closing';
import { transact } from '$lib/server/db';
import { download, route, staff } from '$lib/server/http';
import { appendToLogbook } from '$lib/server/logbook';
import { paperVersion } from '$lib/server/paper';
import { countingSittings } from '$lib/server/marking';
import {
	jsonLines,
	oneRosterZip,
	qtiResultsZip,
	resultLines,
	resultSlips,
	resultsTable,
	type Narrow,
	type ResultLine
} from '$lib/server/results';

/** All results of an administration, or of one paper of it, as a file. */
export const GET = route(staff('release'), async ({ otium, staff, params, url }) => {
	const administrationId = params.administration;
	await mustBeForAll(otium.db, staff, 'release', administrationId);
	const paperId = url.searchParams.get('paper');
	const as = url.searchParams.get('as') ?? 'csv';
	const narrow: Narrow = (query) => {
		query.where('sitting.administration_id', administrationId);
		if (paperId) query.where('sitting.paper_id', paperId);
	};
	const { name } = await otium.db('administration').where({ id: administrationId }).first('name');
	const isFinal = (await closingOf(otium.db, administrationId)) !== null;
	const file = async (): Promise<{ answer: Response; results: number }> => {
		if (as === 'qti') {
			// Written while it is sent: a document for each sitting would not fit into memory.
			const answer = download(`${name}, QTI results.zip`, 'application/zip', qtiResultsZip(otium.db, narrow, isFinal));
			return { answer, results: (await countingSittings(otium.db, narrow)).length };
		}
		const lines = await resultLines(otium.db, narrow);
		return { answer: await inOne(lines), results: lines.length };
	};
	const inOne = async (lines: ResultLine[]): Promise<Response> => {
		const titles = new Map<string, string>();
		for (const { sitting } of lines) titles.set(sitting.paperId, (await paperVersion(otium.db, sitting.paperId)).title);
		switch (as) {
			case 'csv':
				return download(`${name}, results.csv`, 'text/csv; charset=utf-8', resultsTable(lines, titles));
			case 'oneroster':
				return download(
					`${name}, OneRoster.zip`,
					'application/zip',
					await oneRosterZip(otium.db, lines, url.searchParams.get('counts') !== 'no', otium.now())
				);
			case 'jsonl':
				return download(`${name}, results.jsonl`, 'application/x-ndjson', await jsonLines(lines));
			case 'slips':
				return download(
					`${name}, slips.pdf`,
					'application/pdf',
					await resultSlips(otium, name, lines, titles, isFinal)
				);
			default:
				return fail('not_found');
		}
	};
	const { answer, results } = await file();
	await transact(otium.db, (trx) =>
		appendToLogbook(trx, [
			{
				at: otium.now(),
				by: { role: roleFor(staff, 'release'), id: staff.id },
				kind: 'results_sent_out',
				body: { administration: name, as, results }
			}
		])
	);
	return answer;
});
