import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { mayAnywhere } from '$core/access';
import { NOT_YOURS, orTryAgain, problem, readJson, SIGNED_OUT } from '$lib/server/http';
import { dropDraft, saveDraft } from '$lib/server/session';
import type { RequestHandler } from './$types';

const Kept = z.object({
	id: z.string().max(64).nullable(),
	revision: z.number().int(),
	title: z.string().max(200),
	// Whatever the form holds, however unfinished: it is read in earnest when it is planned.
	input: z.record(z.string(), z.unknown()),
	added: z.array(z.object({ id: z.string().max(64), name: z.string().max(200), number: z.string().max(120) })).max(500)
});

export const POST: RequestHandler = async ({ request, locals: { otium, staff } }) => {
	if (!staff) return problem(401, SIGNED_OUT);
	if (!mayAnywhere(staff, 'prepare')) return problem(403, NOT_YOURS);
	const body = await readJson(request, Kept);
	if (!body.ok) return body.response;
	const { input, added, ...draft } = body.data;
	return orTryAgain(async () => {
		const saved = await saveDraft(otium.db, staff, { ...draft, input: { input, added } }, otium.now());
		if (saved.ok) return json({ id: saved.id, revision: saved.revision, savedAt: saved.savedAt });
		return saved.draft
			? problem(409, {
					code: 'behind',
					message: 'This draft was changed in another tab.',
					instead: 'Load this page again to go on from there.'
				})
			: problem(409, {
					code: 'gone',
					message: 'This draft was planned or thrown away in another tab.',
					instead: 'Go back to the list of sessions.'
				});
	});
};

export const DELETE: RequestHandler = async ({ url, locals: { otium, staff } }) => {
	if (!staff) return problem(401, SIGNED_OUT);
	const id = url.searchParams.get('id') ?? '';
	await dropDraft(otium.db, staff, id);
	return json({ ok: true });
};
