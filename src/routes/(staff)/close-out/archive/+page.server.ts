import { addendaOf, closingOf, mustBeForAll } from '$lib/server/closing';
import { keyPrint } from '$lib/server/archive';
import { receiptKey } from '$lib/server/proof';
import { requireStaff } from '$lib/server/http';
import { mayAnywhere } from '$core/access';
import { NO_END } from '$core/retention';
import { retentionOf, retentionTerms } from '$lib/server/retention';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'see_closing');
	const { here } = await event.parent();
	const { otium } = event.locals;
	if (!here)
		return {
			closed: null,
			addenda: [],
			retention: [],
			terms: NO_END,
			maySetKept: false,
			me: staff.id,
			isAll: false,
			keyPrint: ''
		};
	return {
		closed: await closingOf(otium.db, here.id),
		addenda: await addendaOf(otium.db, here.id),
		retention: await retentionOf(otium.db, here.id, otium.now()),
		terms: await retentionTerms(otium.db),
		maySetKept: mayAnywhere(staff, 'change_shared'),
		me: staff.id,
		keyPrint: keyPrint(receiptKey(otium.db)),
		isAll: await mustBeForAll(otium.db, staff, 'see_closing', here.id).then(
			() => true,
			() => false
		)
	};
};
