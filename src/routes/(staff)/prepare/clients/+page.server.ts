import { requireStaff } from '$lib/server/http';
import { listClientDevices } from '$lib/server/identity';
import { coordinatedSites, findSessions } from '$lib/server/session';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'prepare');
	const { otium } = event.locals;
	const sites = coordinatedSites(staff);
	const isMine = (siteId: string) => sites === null || sites.includes(siteId);
	const all: { id: string; name: string }[] = await otium.db('site').orderBy('name', 'desc').select('id', 'name');
	const sealed = (await findSessions(otium.db, (query) => query.whereNull('ended_at'))).filter(
		(session) => session.rules.lockdown.level === 'sealed'
	);
	const devices = await listClientDevices(otium.db);
	return {
		sites: all
			.filter((site) => isMine(site.id))
			.map((site) => ({
				...site,
				devices: devices.filter((one) => one.siteId === site.id),
				sessions: sealed.filter((session) => session.site.id === site.id).length
			}))
	};
};
