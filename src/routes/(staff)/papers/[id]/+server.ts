import { fail } from '$core/problem';
import { LARGE, route, staff } from '$lib/server/http';
import { draftFor, editDraft, EditSchema } from '$lib/server/paper';

/** How the paper is now, for somebody who writes it beside another. */
export const GET = route(staff('write_papers'), async ({ otium, staff, params, url }) => {
	const { content, revision, changedAt, changedBy } = await draftFor(otium.db, staff, params.id);
	return url.searchParams.get('since') === String(revision)
		? { revision }
		: { content, revision, changedAt, changedBy };
});

/** One change of it. A question that two have changed comes back as the other one left it. */
export const POST = route(
	staff('write_papers'),
	{ schema: EditSchema, mostBytes: LARGE },
	async ({ otium, staff, params, body }) => {
		const { edited, draft } = await editDraft(otium, staff, params.id, body);
		const { content, revision, changedAt, changedBy } = draft;
		const now = { content, revision, changedAt, changedBy };
		if (edited.outcome === 'done') return { ...now, undo: edited.undo };
		if (edited.outcome === 'gone')
			fail('paper_changed', { message: 'It is not there any more: somebody else has removed or moved it.' }, now);
		fail('paper_changed', {}, { ...now, theirs: edited.theirs });
	}
);
