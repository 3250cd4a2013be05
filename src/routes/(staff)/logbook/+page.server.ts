import { requireStaff } from '$lib/server/http';
import { searchLogbook } from '$lib/server/logbook';
import type { PageServerLoad } from './$types';

const PAGE = 100;

export const load: PageServerLoad = async (event) => {
	requireStaff(event, 'see_logbook');
	const { searchParams } = event.url;
	const text = searchParams.get('text')?.slice(0, 200) ?? '';
	const sittingId = searchParams.get('sitting') ?? undefined;
	const before = Number(searchParams.get('before')) || undefined;
	const lines = await searchLogbook(event.locals.otium.db, { text, sittingId, before, limit: PAGE });
	return {
		text,
		sittingId: sittingId ?? null,
		lines,
		more: lines.length === PAGE ? lines[lines.length - 1].seq : null
	};
};
