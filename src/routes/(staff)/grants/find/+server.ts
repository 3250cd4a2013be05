import { may, sitesWith } from '$core/access';
import { whereEveryWord } from '$lib/server/db';
import { route, staff } from '$lib/server/http';
import { toLine } from '$lib/server/grants';
import { placeOf } from '$lib/server/session';
import { loadSittings } from '$lib/server/sitting';

/** Candidates by any part of name, number or group, each with the sittings that a grant could reach. */
export const GET = route(staff('grant'), async ({ url, otium, staff }) => {
	const text = (url.searchParams.get('text') ?? '').slice(0, 100).trim();
	if (text === '') return [];
	const query = otium
		.db('sitting')
		.join('candidate', 'candidate.id', 'sitting.candidate_id')
		.join('candidate_group', 'candidate_group.id', 'candidate.group_id')
		.join('session', 'session.id', 'sitting.session_id')
		.whereIn('sitting.state', ['expected', 'at_door', 'let_in', 'working', 'on_hold', 'carried_over', 'absent'])
		.orderBy(['candidate.family', 'candidate.given', 'session.opens'])
		.limit(12)
		.select('sitting.id');
	// Those of other sites must not take the places of one's own.
	const sites = sitesWith(staff, 'grant');
	if (sites !== null) void query.whereIn('session.room_id', otium.db('room').whereIn('site_id', sites).select('id'));
	whereEveryWord(query, text, ['candidate.given', 'candidate.family', 'candidate.number', 'candidate_group.name']);
	const rows: { id: string }[] = await query;
	const now = otium.now();
	const loaded = await loadSittings(
		otium.db,
		rows.map((row) => row.id),
		now
	);
	const order = new Map(rows.map((row, i) => [row.id, i]));
	return loaded
		.filter((one) => may(staff, 'grant', placeOf(one.session)))
		.sort((a, b) => order.get(a.sitting.id)! - order.get(b.sitting.id)!)
		.map((one) => toLine(one, now));
});
