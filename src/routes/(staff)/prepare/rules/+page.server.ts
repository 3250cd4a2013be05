import { differingRules, protectionInWords, protectionOf } from '$core/rules';
import { DEFAULT_RULES } from '$core/session';
import { requireStaff } from '$lib/server/http';
import { listSheets } from '$lib/server/rules';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	requireStaff(event, 'prepare');
	const { otium } = event.locals;
	const sites: { id: string; name: string }[] = await otium.db('site').select('id', 'name');
	const used: { rule_sheet_id: string; n: number }[] = await otium
		.db('session')
		.whereNotNull('rule_sheet_id')
		.whereNull('ended_at')
		.groupBy('rule_sheet_id')
		.select('rule_sheet_id')
		.count('* as n');
	return {
		sheets: (await listSheets(otium.db)).map((sheet) => ({
			id: sheet.id,
			name: sheet.name,
			note: sheet.note,
			shipped: sheet.shipped,
			site: sites.find((site) => site.id === sheet.siteId)?.name ?? null,
			changed: differingRules(DEFAULT_RULES, sheet.rules).length,
			sessions: used.find((row) => row.rule_sheet_id === sheet.id)?.n ?? 0,
			// Of the sheet alone: networks, pools and keys are a session's.
			protection: protectionInWords(
				protectionOf({
					rules: sheet.rules,
					networks: [],
					lostNetworks: 0,
					ownQuestions: false,
					elsewhere: 0,
					siteHasClients: true
				})
			)
		}))
	};
};
