import { may } from '$core/access';
import { fullName } from '$core/names';
import { MOST_PRINTED_FORMS } from '$core/paper';
import { ProblemError } from '$core/problem';
import { paperToType } from '$lib/server/handed';
import { noPage, requireStaff } from '$lib/server/http';
import { loadSitting } from '$lib/server/sitting';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'decide');
	const { otium } = event.locals;
	const one = await loadSitting(otium.db, event.params.sitting, otium.now());
	if (!one || !may(staff, 'decide', { siteId: one.session.site.id, proctorIds: one.session.proctorIds }))
		noPage('not_found');
	const asked = Number(event.url.searchParams.get('form') ?? NaN);
	const form = Number.isInteger(asked) && asked >= 1 && asked <= MOST_PRINTED_FORMS ? asked : null;
	const head = {
		name: fullName(one.candidate),
		number: one.candidate.number,
		session: { id: one.session.id, name: one.session.name }
	};
	try {
		return { ...head, paper: await paperToType(otium.db, one, form), not: null };
	} catch (error) {
		if (!(error instanceof ProblemError)) throw error;
		return { ...head, paper: null, not: error.problem };
	}
};
