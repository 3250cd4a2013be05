import { boundDevice, mustBeProven, refuse, route } from '$lib/server/http';
import { refusal } from '$core/sitting';
import { drawnFormulas } from '$lib/server/formulas';
import { paperVersion } from '$lib/server/paper';
import { loadSitting, showQuestions } from '$lib/server/sitting';

/** The questions of the page that has been reached, where they come page by page; all of them where one may go back. */
export const GET = route(boundDevice, async ({ otium, device, locals }) => {
	const one = await loadSitting(otium.db, device.sittingId, otium.now());
	if (one?.sitting.state !== 'working') refuse(refusal('not_from_this_state'));
	mustBeProven(one.session, locals.client);
	const { ids: _ids, form: _form, ...sent } = await showQuestions(otium, one);
	const { language = 'en' } = (await paperVersion(otium.db, one.paperId)).content;
	return { ...sent, ...(await drawnFormulas(otium, sent.questions, language)) };
});
