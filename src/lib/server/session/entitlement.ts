import type { Query } from '../db';

/**
 * How many sittings a site may still use of those allotted to it; null: they are not counted. Whoever is absent has used
 * none.
 * @param without sittings that are not counted as used, because what is asked is about them
 */
export async function sittingsLeft(
	db: Query,
	administrationId: string,
	siteId: string,
	without: string[] = []
): Promise<number | null> {
	const allotted = await db('entitlement')
		.where({ administration_id: administrationId, site_id: siteId })
		.first('count');
	if (!allotted) return null;
	const used: string[] = await db('sitting')
		.join('session', 'session.id', 'sitting.session_id')
		.join('room', 'room.id', 'session.room_id')
		.where({ 'sitting.administration_id': administrationId, 'room.site_id': siteId, 'sitting.counts': 1 })
		.whereNot('sitting.state', 'absent')
		.pluck('sitting.id');
	const mine = new Set(without);
	return allotted.count - used.filter((id) => !mine.has(id)).length;
}
