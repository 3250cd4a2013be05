import { requireStaff } from '$lib/server/http';
import { listStaff, sharedAccounts } from '$lib/server/identity';
import { coordinatedSites } from '$lib/server/session';
import { signInRules, whoHasSecondStep } from '$lib/server/sign-in';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'prepare');
	const { otium } = event.locals;
	const sites = coordinatedSites(staff);
	const all = await listStaff(otium.db);
	const steps = await whoHasSecondStep(otium.db);
	const shared = await sharedAccounts(otium.db);
	return {
		/** At which sites this coordinator may give roles; null: at all. */
		mySites: sites,
		staff: all
			.filter((one) => sites === null || one.roles.some((held) => held.siteId !== null && sites.includes(held.siteId)))
			.map((one) => ({ ...one, hasSecondStep: steps.has(one.id), shares: shared.get(one.id) ?? [] })),
		me: staff.id,
		signIn: await signInRules(otium.db),
		sites: (await otium.db('site').orderBy('name', 'desc').select('id', 'name')) as { id: string; name: string }[]
	};
};
