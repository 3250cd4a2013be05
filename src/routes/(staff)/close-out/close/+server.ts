import { z } from 'zod';
import { mayAnywhere } from '$core/access';
import { fail } from '$core/problem';
import { close, mustBeForAll } from '$lib/server/closing';
import { confirmed, route, staff } from '$lib/server/http';

const Asked = z.object({
	administrationId: z.string().max(64),
	/** Its name, typed. */
	typed: z.string().max(200),
	basis: z.string().max(64)
});

/** Closes an administration for good. A closing officer does; where they supervised some of it, with another person. */
export const POST = route(confirmed(staff('see_closing')), Asked, async ({ otium, staff, body }) => {
	const { administrationId, typed, basis } = body;
	const row = await otium.db('administration').where({ id: administrationId }).first('name');
	if (!row) fail('not_found');
	await mustBeForAll(otium.db, staff, 'see_closing', administrationId);
	const isOfficer = mayAnywhere(staff, 'close');
	const wished = await otium.db('closing_wish').where({ administration_id: administrationId }).first('by');
	// A coordinator may be the second of two, and never the first.
	if (!isOfficer && !wished)
		fail('refused', {
			message: 'A closing officer closes first.',
			instead: 'Then another person may have to as well.'
		});
	if (typed.trim() !== row.name)
		fail('not_taken', { message: 'The name does not match.', instead: `Type ${row.name} exactly as it is written.` });
	const role = isOfficer ? ('closing_officer' as const) : ('coordinator' as const);
	return close(otium, staff, { role, id: staff.id }, administrationId, basis);
});
