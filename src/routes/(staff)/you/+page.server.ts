import { ACT_WORDS, ACTS, holds, ROLE_NAMES, rolesFor, type Act } from '$core/access';
import { requireStaff } from '$lib/server/http';
import { listStaff } from '$lib/server/identity';
import type { PageServerLoad } from './$types';

/** What somebody may do, where, and who could give them more. */
export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event);
	const { otium } = event.locals;
	const sites: { id: string; name: string }[] = await otium.db('site').select('id', 'name');
	const nameOf = (id: string | null) =>
		id === null ? 'all sites' : (sites.find((site) => site.id === id)?.name ?? '');
	// Those of one's own sites: nobody else has to be found by whoever signs in here.
	const isNear = (siteId: string | null) =>
		siteId === null || staff.roles.some((held) => held.siteId === null || held.siteId === siteId);
	const givers = (await listStaff(otium.db)).filter(
		(one) => one.id !== staff.id && one.roles.some((held) => held.role === 'coordinator' && isNear(held.siteId))
	);
	const where = (act: Act) =>
		staff.roles
			.filter((held) => holds(held, act))
			.map((held) => `${nameOf(held.siteId)}${held.role === 'proctor' ? ', in the sessions that name you' : ''}`);
	return {
		roles: staff.roles.map((held) => `${ROLE_NAMES[held.role]}, ${nameOf(held.siteId)}`),
		acts: ACTS.map((act) => ({
			words: ACT_WORDS[act],
			where: [...new Set(where(act))],
			roles: rolesFor(act).map((role) => ROLE_NAMES[role])
		})),
		givers: givers.map((one) => ({
			name: one.name,
			email: one.email,
			sites: one.roles.filter((held) => held.role === 'coordinator').map((held) => nameOf(held.siteId))
		}))
	};
};
