import { fail } from '$core/problem';
import { route, staff } from '$lib/server/http';
import { actorAt } from '$lib/server/identity';
import { makeDraft, MOST_DOCUMENT_BYTES, readQti } from '$lib/server/paper';

/** A QTI package: told what it would bring, and with `title` made into a paper of the site `site` (empty: of all). */
export const POST = route(staff('write_papers'), async ({ otium, staff, url, request }) => {
	const bytes = new Uint8Array(await request.arrayBuffer());
	if (bytes.length > MOST_DOCUMENT_BYTES) fail('too_large');
	const title = url.searchParams.get('title')?.trim().slice(0, 200);
	const { paper, told } = await readQti(otium, bytes, title ? { staffId: staff.id } : null);
	if (!title)
		return {
			title: paper.title,
			parts: paper.parts.map(({ title, draw, questions }) => ({ title, draw, questions: questions.length })),
			told
		};
	const siteId = url.searchParams.get('site') || null;
	const asked = { title, siteId, from: null, content: paper };
	return { id: await makeDraft(otium, staff, actorAt(staff, siteId ?? ''), asked) };
});
