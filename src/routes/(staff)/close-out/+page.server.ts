import { redirect } from '@sveltejs/kit';
import { may, mayAnywhere } from '$core/access';
import { whoSettles } from '$core/closing';
import { closable, readBeneath, STATEMENT } from '$lib/server/closing';
import { requireStaff } from '$lib/server/http';
import { releasesOf } from '$lib/server/results';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event);
	// Whoever only marks has one page here.
	if (!mayAnywhere(staff, 'see_closing') && mayAnywhere(staff, 'mark')) redirect(303, '/close-out/marking');
	requireStaff(event, 'see_closing');
	const { here } = await event.parent();
	if (!here) return { closing: null };
	const { otium } = event.locals;
	const closing = await closable(otium, staff, here.id);
	const { sites } = closing.standing;
	const signsAt = sites.filter(({ id }) => may(staff, 'sign_off', { siteId: id, proctorIds: [] })).map(({ id }) => id);
	return {
		closing,
		who: whoSettles(closing.standing.gates, new Map(sites.map(({ id, name }) => [id, name]))),
		statement: STATEMENT,
		signsAt,
		// What a signature is for is what is read here.
		beneath: await readBeneath(otium.db, here.id, signsAt),
		mayClose: mayAnywhere(staff, 'close') || (closing.waitsForSecond !== null && mayAnywhere(staff, 'sign_off')),
		releases: (await releasesOf(otium.db, here.id)).filter(({ calledBackAt }) => calledBackAt === null)
	};
};
