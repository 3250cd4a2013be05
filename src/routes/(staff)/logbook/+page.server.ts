import { sitesWith } from '$core/access';
import { requireStaff } from '$lib/server/http';
import { logbookPage } from '$lib/server/logbook';
import type { PageServerLoad } from './$types';

const PAGE = 100;

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'see_logbook');
	const siteIds = sitesWith(staff, 'see_logbook');
	const within = siteIds === null ? undefined : { siteIds, staffId: staff.id };
	const { searchParams } = event.url;
	const text = searchParams.get('text')?.slice(0, 200) ?? '';
	const sittingId = searchParams.get('sitting') ?? undefined;
	const before = Number(searchParams.get('before')) || undefined;
	const page = await logbookPage(event.locals.otium.db, { text, sittingId, before, limit: PAGE, within });
	return {
		text,
		sittingId: sittingId ?? null,
		isWhole: siteIds === null,
		...page,
		isEarlier: before !== undefined
	};
};
