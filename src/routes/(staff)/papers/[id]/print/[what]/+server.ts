import { MOST_PRINTED_FORMS } from '$core/paper';
import { fail } from '$core/problem';
import { route, staff } from '$lib/server/http';
import { draftFor } from '$lib/server/paper';
import { PAPER_PRINTS, printPaper, type PaperPrint } from '$lib/server/print';

/** The paper as it is now, its answer sheet or its key, to be written on by hand. */
export const GET = route(staff('write_papers'), async ({ otium, staff, params: { id, what }, url }) => {
	if (!Object.hasOwn(PAPER_PRINTS, what)) fail('not_found');
	const form = Number(url.searchParams.get('form') ?? 1);
	if (!Number.isInteger(form) || form < 1 || form > MOST_PRINTED_FORMS) fail('not_found');
	const { content, basedOn, revision } = await draftFor(otium.db, staff, id);
	const version = `version ${(basedOn?.version ?? 0) + 1}, being written (change ${revision})`;
	const pdf = await printPaper(otium, content, version, what as PaperPrint, form);
	return new Response(pdf as BodyInit, {
		headers: { 'content-type': 'application/pdf', 'content-disposition': `inline; filename="${what}-${form}.pdf"` }
	});
});
