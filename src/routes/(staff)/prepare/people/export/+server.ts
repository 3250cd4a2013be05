import { error } from '@sveltejs/kit';
import { requireStaff, download, NOT_YOURS } from '$lib/server/http';
import { NO_GROUP, knownPeople, peopleCsv, peopleNeeds, peopleOneRoster } from '$lib/server/people';
import { transact } from '$lib/server/db';
import { actorAt } from '$lib/server/identity';
import { appendToLogbook } from '$lib/server/logbook';
import { coordinatesSite } from '$lib/server/session';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async (event) => {
	const staff = requireStaff(event, 'prepare');
	const { otium } = event.locals;
	const site = await otium
		.db('site')
		.where({ id: event.url.searchParams.get('site') ?? '' })
		.first('id', 'name');
	if (!site || !coordinatesSite(staff, site.id)) error(403, NOT_YOURS);
	const people = await knownPeople(otium.db, site.id);
	const format = event.url.searchParams.get('format');
	const groups = await otium
		.db('candidate_group')
		.where({ site_id: site.id })
		.whereNot({ name: NO_GROUP })
		.select('id', 'name');
	const file = {
		csv: () => download(`${site.name} people.csv`, 'text/csv; charset=utf-8', peopleCsv(people)),
		oneroster: () => download(`${site.name} OneRoster.zip`, 'application/zip', peopleOneRoster(site, groups, people)),
		needs: () => download(`${site.name} needs.zip`, 'application/zip', peopleNeeds(people))
	}[format ?? ''];
	if (!file) error(404, { message: 'There is no such export.', instead: 'Choose CSV, OneRoster or needs.' });
	const by = actorAt(staff, site.id);
	await transact(otium.db, (trx) =>
		appendToLogbook(trx, [{ at: otium.now(), by, kind: 'people_exported', body: { site: site.name, format } }])
	);
	return file();
};
