import { mayAnywhere } from '$core/access';
import { administrationsFor } from '$lib/server/closing';
import { requireStaff } from '$lib/server/http';
import { countOwed } from '$lib/server/owed';
import { answersGone } from '$lib/server/records';
import type { LayoutServerLoad } from './$types';

export const load: LayoutServerLoad = async (event) => {
	const staff = requireStaff(event);
	const { otium } = event.locals;
	const seesClosing = mayAnywhere(staff, 'see_closing');
	const asked = event.url.searchParams.get('of') ?? event.cookies.get('otium_of') ?? null;
	const { all, here } = await administrationsFor(
		otium.db,
		staff,
		seesClosing ? 'see_closing' : 'mark',
		otium.now(),
		asked
	);
	if (event.url.searchParams.has('of') && here)
		event.cookies.set('otium_of', here.id, { path: '/close-out', httpOnly: true, sameSite: 'lax' });
	return {
		administrations: all.map(({ id, name }) => ({ id, name })),
		here: here && { id: here.id, name: here.name },
		/** Since when its answers are deleted, as their time had come. */
		gone: here && (await answersGone(otium.db, here.id)),
		may: {
			seeClosing: seesClosing,
			mark: mayAnywhere(staff, 'mark'),
			decide: mayAnywhere(staff, 'decide'),
			correct: mayAnywhere(staff, 'correct'),
			release: mayAnywhere(staff, 'release'),
			grant: mayAnywhere(staff, 'grant')
		},
		owed: mayAnywhere(staff, 'grant') ? (await countOwed(otium.db, staff, otium.now())).count : 0
	};
};
