import { redirect } from '@sveltejs/kit';
import { mayAnywhere, type StaffMember } from '$core/access';
import { isSetUp, setUpSteps, type SetUpStep } from '$core/setting-up';
import type { Query } from '$lib/server/db';
import { houseCard } from '$lib/server/house-card';
import { houseFacts } from '$lib/server/setting-up';
import { localDate } from '$core/time';
import { requireStaff } from '$lib/server/http';
import { administrationOn } from '$lib/server/places';
import { drawToday, waitingFor } from '$lib/server/today';
import type { PageServerLoad } from './$types';

/** What is left to set up, for whoever can; null: it is done, hidden, or not theirs. */
async function leftToSetUp(db: Query, staff: StaffMember, url: URL): Promise<SetUpStep[] | null> {
	if (!mayAnywhere(staff, 'change_shared') || (await houseCard(db)).isListHidden) return null;
	const facts = await houseFacts(db, url);
	return isSetUp(facts) ? null : setUpSteps(facts);
}

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event);
	// Who has no session to see begins with what is theirs.
	if (!mayAnywhere(staff, 'see_session') && mayAnywhere(staff, 'see_technical')) redirect(303, '/technical');
	const { otium } = event.locals;
	const { site } = await event.parent();
	const administration = await administrationOn(otium.db, localDate(otium.now(), site.zone));
	return {
		waiting: await waitingFor(otium.db, staff, otium.now()),
		seesSessions: mayAnywhere(staff, 'see_session'),
		today: await drawToday(otium.db, staff, site.zone, otium.now()),
		administration: administration?.name ?? '',
		mayPrepare: mayAnywhere(staff, 'prepare'),
		leftToSetUp: await leftToSetUp(otium.db, staff, event.url)
	};
};
