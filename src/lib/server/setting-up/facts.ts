import type { Knex } from 'knex';
import { isHereAlone, type HouseFacts } from '$core/setting-up';
import type { Query } from '../db';
import { houseCard } from '../house-card';
import { mailLeaves } from '../mail';

async function count(rows: Knex.QueryBuilder): Promise<number> {
	const found: { n: number } | undefined = await rows.count('* as n').first();
	return Number(found?.n ?? 0);
}

/** What a house has so far. @param url of the request: how it was reached just now */
export async function houseFacts(db: Query, url: URL): Promise<HouseFacts> {
	const { name, address: named } = await houseCard(db);
	const address = named ?? url.origin;
	return {
		name,
		sites: await count(db('site')),
		rooms: await count(db('room')),
		people: await count(db('candidate').whereNull('left_at')),
		papers: await count(db('paper').whereNull('withdrawn_at')),
		drafts: await count(db('paper_draft').whereNull('based_on')),
		staff: await count(db('staff')),
		planned: await count(db('session')),
		held: await count(
			db('session')
				.whereNotNull('ended_at')
				.whereIn('id', db('sitting').whereIn('state', ['handed_in', 'time_up']).select('session_id'))
		),
		mailLeaves: mailLeaves(),
		address,
		isNamed: named !== null,
		isHereAlone: isHereAlone(address),
		isSecure: address.startsWith('https:')
	};
}
