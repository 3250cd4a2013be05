import { nanoid } from 'nanoid';
import { isInside, readRanges } from '$core/access';
import type { Actor } from '$core/sitting';
import { transact, type Query } from '../db';
import { appendToLogbook } from '../logbook';
import type { Writing } from '../house';

/** A named list of address ranges. */
export type Network = { id: string; siteId: string; site: string; name: string; ranges: string[]; sessions: number };

export async function listNetworks(db: Query, siteIds: string[] | null): Promise<Network[]> {
	const rows: { id: string; site_id: string; site: string; name: string; ranges: string }[] = await db('network')
		.join('site', 'site.id', 'network.site_id')
		.modify((query) => {
			if (siteIds !== null) query.whereIn('site.id', siteIds);
		})
		.orderBy(['site.name', 'network.name'])
		.select('network.*', 'site.name as site');
	const rules: string[] = await db('session').whereNull('ended_at').pluck('rules');
	return rows.map(({ id, site_id, site, name, ranges }) => ({
		id,
		siteId: site_id,
		site,
		name,
		ranges: readRanges(ranges).ranges,
		sessions: rules.filter((text) => text.includes(`"${id}"`)).length
	}));
}

/** The networks that an address lies in. */
export function networksOf(networks: Network[], address: string): Network[] {
	return networks.filter((network) => isInside(address, network.ranges));
}

export type NetworkResult = { ok: true; id: string } | { ok: false; message: string };

export async function saveNetwork(
	otium: Writing,
	by: Actor,
	change: { id: string | null; siteId: string; name: string; ranges: string }
): Promise<NetworkResult> {
	const read = readRanges(change.ranges);
	if (read.problems.length > 0) return { ok: false, message: read.problems.join(' ') };
	if (read.ranges.length === 0) return { ok: false, message: 'Give at least one range, like 10.20.0.0/16.' };
	return transact(otium.db, async (trx): Promise<NetworkResult> => {
		const namesake = await trx('network')
			.where({ site_id: change.siteId, name: change.name })
			.whereNot({ id: change.id ?? '' })
			.first('id');
		if (namesake) return { ok: false, message: `There is a network named “${change.name}” already.` };
		const id = change.id ?? nanoid();
		const row = { name: change.name, ranges: read.ranges.join(' ') };
		if (change.id === null) await trx('network').insert({ id, site_id: change.siteId, ...row });
		else await trx('network').where({ id, site_id: change.siteId }).update(row);
		await appendToLogbook(trx, [{ at: otium.now(), by, kind: 'network_saved', body: row }]);
		return { ok: true, id };
	});
}

/** Removes it. Sessions that are limited to it alone would let nobody in: their findings say so until they are changed. */
export async function removeNetwork(otium: Writing, by: Actor, id: string): Promise<void> {
	await transact(otium.db, async (trx) => {
		const row = await trx('network').where({ id }).first('name');
		if (!row) return;
		await trx('network').where({ id }).delete();
		await appendToLogbook(trx, [{ at: otium.now(), by, kind: 'network_removed', body: { name: row.name } }]);
	});
}
