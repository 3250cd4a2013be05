import { fail } from '$core/problem';
import { anyone, route } from '$lib/server/http';
import { mediumResponse, readMedium } from '$lib/server/media';
import { playsFile, practiceForm } from '$lib/server/practice';

/** What a practice paper shows and plays. */
export const GET = route(anyone, async ({ otium, params }) => {
	const practice = await practiceForm(otium.db, params.paper, 0);
	const found = practice && playsFile(practice.paper, params.file) ? await readMedium(otium, params.file) : null;
	if (!found) fail('not_found');
	return mediumResponse(found);
});
