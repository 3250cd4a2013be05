import { z } from 'zod';
import { fullName } from '$core/names';
import { fail } from '$core/problem';
import { REQUEST_WHATS } from '$core/request';
import { MOST_SHOWN_BYTES, Shown } from '$lib/server/grants';
import { ownPageOf, route } from '$lib/server/http';
import { askFor, takeBack } from '$lib/server/requests';

const Asked = z.discriminatedUnion('act', [
	z.object({
		act: z.literal('ask'),
		sessionId: z.string().max(64).nullable(),
		what: z.enum(REQUEST_WHATS),
		why: z.string().trim().min(1, 'Say why, in a few words.').max(2_000),
		shown: Shown.nullable().default(null)
	}),
	z.object({ act: z.literal('take_back'), id: z.string().max(64) })
]);

/** A candidate asks for something, or takes it back, by the link to their own page. */
export const POST = route(
	ownPageOf,
	{ schema: Asked, mostBytes: MOST_SHOWN_BYTES },
	async ({ otium, candidateId, body }) => {
		if (body.act === 'take_back') {
			if (!(await takeBack(otium, candidateId, body.id)))
				fail('already', { message: 'This was decided, or taken back, already.' });
			return { ok: true };
		}
		const person = await otium
			.db('candidate')
			.where({ id: candidateId, left_at: null })
			.first('given', 'family', 'email');
		if (!person) fail('link_over');
		if (body.sessionId !== null) {
			const sits = await otium
				.db('sitting')
				.where({ candidate_id: candidateId, session_id: body.sessionId })
				.first('id');
			if (!sits) fail('not_found');
		}
		await askFor(
			otium,
			{ role: 'candidate', id: candidateId },
			{
				candidateId,
				sessionId: body.sessionId,
				what: body.what,
				why: body.why,
				as: 'candidate',
				by: fullName(person),
				email: person.email,
				shown: body.shown
			}
		);
		return { ok: true };
	}
);
