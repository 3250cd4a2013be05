import { SETTINGS, valueAt, valueInWords } from '$core/rules';
import { requireStaff } from '$lib/server/http';
import { listSheets } from '$lib/server/rules';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	requireStaff(event, 'prepare');
	const { otium } = event.locals;
	const all = await listSheets(otium.db);
	const wanted = event.url.searchParams.getAll('sheet').slice(0, 3);
	const sheets = wanted.flatMap((id) => all.find((sheet) => sheet.id === id) ?? []);
	const networks: { id: string; name: string }[] = await otium.db('network').select('id', 'name');
	const names = new Map(networks.map((one) => [one.id, one.name]));
	return {
		all: all.map((sheet) => ({ id: sheet.id, name: sheet.name })),
		sheets: sheets.map((sheet) => ({ id: sheet.id, name: sheet.name })),
		rows: SETTINGS.map((setting) => {
			const values = sheets.map((sheet) => valueInWords(setting, valueAt(sheet.rules, setting.path), names));
			return {
				path: setting.path,
				section: setting.section,
				name: setting.name,
				says: setting.says,
				values,
				differs: new Set(values).size > 1
			};
		})
	};
};
