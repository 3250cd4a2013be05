import { z } from 'zod';
import { fail } from '$core/problem';
import { LARGE, route, staff } from '$lib/server/http';
import { dropDraft, saveDraft } from '$lib/server/session';

const Kept = z.object({
	id: z.string().max(64).nullable(),
	revision: z.number().int(),
	title: z.string().max(200),
	// Whatever the form holds, however unfinished: it is read in earnest when it is planned.
	input: z.record(z.string(), z.unknown()),
	added: z.array(z.object({ id: z.string().max(64), name: z.string().max(200), number: z.string().max(120) })).max(500)
});

export const POST = route(
	staff('prepare'),
	{ schema: Kept, mostBytes: LARGE },
	async ({ otium, staff, body: { input, added, ...draft } }) => {
		const saved = await saveDraft(otium.db, staff, { ...draft, input: { input, added } }, otium.now());
		if (!saved.ok) fail(saved.draft ? 'behind' : 'gone');
		return { id: saved.id, revision: saved.revision, savedAt: saved.savedAt };
	}
);

export const DELETE = route(staff('prepare'), async ({ url, otium, staff }) => {
	await dropDraft(otium.db, staff, url.searchParams.get('id') ?? '');
	return { ok: true };
});
