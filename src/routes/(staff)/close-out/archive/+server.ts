import { roleFor } from '$core/access';
import { z } from 'zod';
import { fail } from '$core/problem';
import { decideAddendum, mustBeForAll, proposeAddendum } from '$lib/server/closing';
import { confirmed, route, staff } from '$lib/server/http';

const id = z.string().max(64);
const Asked = z.discriminatedUnion('act', [
	z.object({
		act: z.literal('propose'),
		id: z.string().regex(/^[\w-]{8,40}$/),
		administrationId: id,
		/** Of the candidate whom it is about; null: it is about nobody alone. */
		number: z.string().trim().min(1).max(40).nullable(),
		text: z.string().trim().min(1, 'Say what was found.').max(2_000)
	}),
	z.object({ act: z.enum(['confirm', 'decline']), id })
]);

/** What is found after the closing: proposed by one person, confirmed by another. */
export const POST = route(confirmed(staff('correct')), Asked, async ({ otium, staff, body }) => {
	const by = { role: roleFor(staff, 'correct'), id: staff.id };
	if (body.act === 'propose') {
		await mustBeForAll(otium.db, staff, 'correct', body.administrationId);
		await proposeAddendum(otium, by, body);
		return {};
	}
	const row = await otium.db('addendum').where({ id: body.id }).first('administration_id');
	if (!row) fail('not_found');
	await mustBeForAll(otium.db, staff, 'correct', row.administration_id);
	await decideAddendum(otium, by, body.id, body.act === 'confirm');
	return {};
});
