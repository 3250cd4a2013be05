import { fail } from '$core/problem';
import { route, staff } from '$lib/server/http';
import { mediumResponse, readMedium } from '$lib/server/media';

/**
 * A file of a question, for authors who have been shown the question: nobody else knows its name, which is the SHA-256
 * of what is in it.
 */
export const GET = route(staff('write_papers'), async ({ otium, params }) => {
	const found = await readMedium(otium, params.file);
	if (!found) fail('not_found');
	return mediumResponse(found);
});
