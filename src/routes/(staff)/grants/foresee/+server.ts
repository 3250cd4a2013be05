import { ForeseeAsked, foreseeGrants, lookNow, readGrants } from '$lib/server/grants';
import { LARGE, route, staff } from '$lib/server/http';

/**
 * What the grants would do, before they are given; with one person also their day and the windows that do. Without a grant,
 * how their day stands now.
 */
export const POST = route(
	staff('grant'),
	{ schema: ForeseeAsked, mostBytes: LARGE },
	async ({ otium, staff, body }) => {
		const { what } = body;
		// Whoever may give the least may look.
		const read = await readGrants(otium, staff, { ...body, what: what ?? { kind: 'separate_room' } });
		const focus = read.length === 1 ? read[0].one.sitting.id : null;
		if (what === null) return focus === null ? { effects: [], look: null } : lookNow(otium.db, focus, otium.now());
		return foreseeGrants(
			otium.db,
			read.map((one) => one.grant),
			focus,
			otium.now()
		);
	}
);
