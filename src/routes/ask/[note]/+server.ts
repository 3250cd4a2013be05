import { z } from 'zod';
import { foldNumber, sameName } from '$core/access';
import { fail } from '$core/problem';
import { REQUEST_WHATS } from '$core/request';
import { MOST_SHOWN_BYTES, Shown } from '$lib/server/grants';
import { route, teacher } from '$lib/server/http';
import { askFor } from '$lib/server/requests';

const Asked = z.object({
	number: z.string().trim().min(1, 'Give the candidate number.').max(60),
	family: z.string().trim().min(1, 'Give the family name.').max(120),
	what: z.enum(REQUEST_WHATS),
	why: z.string().trim().min(1, 'Say why, in a few words.').max(2_000),
	shown: Shown.nullable().default(null)
});

/** A teacher asks for a candidate of the site that the link is for: named by number and family name, as at the door. */
export const POST = route(teacher, { schema: Asked, mostBytes: MOST_SHOWN_BYTES }, async ({ otium, link, body }) => {
	const row = await otium
		.db('candidate')
		.join('candidate_group', 'candidate_group.id', 'candidate.group_id')
		.where({ number_folded: foldNumber(body.number), site_id: link.siteId, left_at: null })
		.first('candidate.id', 'family');
	if (!row || !sameName(row.family, body.family))
		fail('not_found', {
			message: 'Nobody at this site has that number and family name.',
			instead: 'Check both: they stand on the candidate’s card and in their mails.'
		});
	await askFor(
		otium,
		{ role: 'system', id: `teacher: ${link.name}` },
		{
			candidateId: row.id,
			sessionId: null,
			what: body.what,
			why: body.why,
			as: 'teacher',
			by: link.name,
			email: link.email,
			shown: body.shown
		}
	);
	return { ok: true };
});
