import type { RequestEvent } from '@sveltejs/kit';
import type { StaffMember } from '$core/access';
import { localDate } from '$core/time';
import { administrationOn, findAdministration, listAdministrations } from '../places';
import type { Administration, AdministrationName } from '../places';
import { coordinatedSites } from '../session';
import { noPage, requireStaff } from './guard';

type Asking = Pick<RequestEvent, 'locals' | 'url'> & { parent: () => Promise<{ site: { zone: string } }> };
type Asked = {
	staff: StaffMember;
	/** null: there is none. */
	administration: Administration | null;
	all: AdministrationName[];
	/** What all sites share takes somebody who coordinates them all. */
	mayChange: boolean;
};

/** For pages about one administration: the one that is asked for, else today's. */
export async function administrationAsked(event: Asking): Promise<Asked> {
	const staff = requireStaff(event, 'prepare');
	const { db, now } = event.locals.otium;
	const { site } = await event.parent();
	const asked = event.url.searchParams.get('id');
	const id = asked ?? (await administrationOn(db, localDate(now(), site.zone)))?.id;
	const administration = id === undefined ? null : await findAdministration(db, id);
	if (asked && !administration) noPage('not_found');
	return { staff, administration, all: await listAdministrations(db), mayChange: coordinatedSites(staff) === null };
}
