import { fail } from '$core/problem';
import { coordinatorOf, download, route, staff } from '$lib/server/http';
import { NO_GROUP, knownPeople, peopleCsv, peopleNeeds, peopleOneRoster } from '$lib/server/people';
import { transact } from '$lib/server/db';
import { appendToLogbook } from '$lib/server/logbook';

export const GET = route(staff('prepare'), async ({ otium, staff, url }) => {
	const site = await otium
		.db('site')
		.where({ id: url.searchParams.get('site') ?? '' })
		.first('id', 'name');
	if (!site) fail('not_yours');
	const by = coordinatorOf(staff, site.id);
	const people = await knownPeople(otium.db, site.id);
	const groups = await otium
		.db('candidate_group')
		.where({ site_id: site.id })
		.whereNot({ name: NO_GROUP })
		.select('id', 'name');
	const files = new Map<string | null, () => Response>([
		['csv', () => download(`${site.name} people.csv`, 'text/csv; charset=utf-8', peopleCsv(people))],
		[
			'oneroster',
			() => download(`${site.name} OneRoster.zip`, 'application/zip', peopleOneRoster(site, groups, people))
		],
		['needs', () => download(`${site.name} needs.zip`, 'application/zip', peopleNeeds(people))]
	]);
	const format = url.searchParams.get('format');
	const file = files.get(format);
	if (!file) fail('not_found', { message: 'There is no such export.', instead: 'Choose CSV, OneRoster or needs.' });
	await transact(otium.db, (trx) =>
		appendToLogbook(trx, [{ at: otium.now(), by, kind: 'people_exported', body: { site: site.name, format } }])
	);
	return file();
});
