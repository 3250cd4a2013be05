import { counted } from '$core/names';
import { IANAZone } from 'luxon';
import { nanoid } from 'nanoid';
import type { Actor } from '$core/sitting';
import { transact, type Query } from '../db';
import { appendToLogbook } from '../logbook';
import type { Writing } from '../house';

/** The whole testing event: its days, its sites, what may be sat where, and how many sittings there are. */
export type Administration = {
	id: string;
	name: string;
	opensOn: string | null;
	closesOn: string | null;
	bought: number | null;
	sites: {
		id: string;
		name: string;
		zone: string;
		opens: string | null;
		closes: string | null;
		allotted: number | null;
		/** Sittings planned or sat; who is absent uses none. */
		used: number;
	}[];
	papers: { id: string; title: string; version: number; everywhere: boolean; siteIds: string[]; groupIds: string[] }[];
	groups: { id: string; name: string; siteId: string }[];
};

/** An administration as lists and choices name it. */
export type AdministrationName = { id: string; name: string; opensOn: string | null; closesOn: string | null };

/** All of them, the latest first; those without days at the end, as they were made. */
export async function listAdministrations(db: Query): Promise<AdministrationName[]> {
	const rows: { id: string; name: string; opens_on: string | null; closes_on: string | null }[] = await db(
		'administration'
	).orderBy(['made_at', 'name']);
	return rows
		.map((row) => ({ id: row.id, name: row.name, opensOn: row.opens_on, closesOn: row.closes_on }))
		.sort((a, b) => (b.opensOn ?? '').localeCompare(a.opensOn ?? ''));
}

/**
 * The administration that a day belongs to: of those whose days hold it the one that began last, else one that has no
 * days, else the nearest that is there. null: there is none at all.
 * @param day local, `2026-12-08`
 */
export async function administrationOn(db: Query, day: string): Promise<AdministrationName | null> {
	const all = await listAdministrations(db);
	const holds = ({ opensOn, closesOn }: AdministrationName) =>
		(opensOn !== null || closesOn !== null) && (opensOn ?? day) <= day && day <= (closesOn ?? day);
	return all.find(holds) ?? all.find((one) => one.opensOn === null && one.closesOn === null) ?? all[0] ?? null;
}

export async function findAdministration(db: Query, id: string): Promise<Administration | null> {
	const row = await db('administration').where({ id }).first();
	if (!row) return null;
	const stock: { site_id: string | null; count: number }[] = await db('entitlement').where({
		administration_id: row.id
	});
	const used: { site_id: string; n: number }[] = await db('sitting')
		.join('session', 'session.id', 'sitting.session_id')
		.join('room', 'room.id', 'session.room_id')
		.where({ 'sitting.administration_id': row.id, counts: 1 })
		.whereNot('sitting.state', 'absent')
		.groupBy('room.site_id')
		.select('room.site_id')
		.count('* as n');
	const allowed: { paper_id: string; site_id: string | null; group_id: string | null }[] = await db(
		'paper_allowed'
	).where({
		administration_id: row.id
	});
	const sites: { id: string; name: string; zone: string; opens_daily: string | null; closes_daily: string | null }[] =
		await db('site').orderBy('name', 'desc');
	const papers: { id: string; title: string; version: number }[] = await db('paper')
		.orderBy(['title', 'version'])
		.select('id', 'title', 'version');
	return {
		id: row.id,
		name: row.name,
		opensOn: row.opens_on,
		closesOn: row.closes_on,
		bought: stock.find((one) => one.site_id === null)?.count ?? null,
		sites: sites.map((site) => ({
			id: site.id,
			name: site.name,
			zone: site.zone,
			opens: site.opens_daily,
			closes: site.closes_daily,
			allotted: stock.find((one) => one.site_id === site.id)?.count ?? null,
			used: used.find((one) => one.site_id === site.id)?.n ?? 0
		})),
		papers: papers.map((paper) => {
			const rows = allowed.filter((one) => one.paper_id === paper.id);
			return {
				...paper,
				everywhere: rows.some((one) => one.site_id === null && one.group_id === null),
				siteIds: rows.flatMap((one) => one.site_id ?? []),
				groupIds: rows.flatMap((one) => one.group_id ?? [])
			};
		}),
		groups: await db('candidate_group').orderBy('name').select('id', 'name', 'site_id as siteId')
	};
}

export type AdministrationChange = Pick<Administration, 'name' | 'opensOn' | 'closesOn' | 'bought'> & {
	sites: { id: string; opens: string | null; closes: string | null; allotted: number | null }[];
	papers: { id: string; everywhere: boolean; siteIds: string[]; groupIds: string[] }[];
};
export type AdministrationResult = { ok: true } | { ok: false; message: string };

/** Saves it whole. What was allotted can't be more than was bought, nor less than is used. */
export async function saveAdministration(
	otium: Writing,
	by: Actor,
	id: string,
	change: AdministrationChange
): Promise<AdministrationResult> {
	if (change.opensOn && change.closesOn && change.closesOn < change.opensOn)
		return { ok: false, message: 'It ends before it begins. Choose a later last day.' };
	const allotted = change.sites.reduce((sum, site) => sum + (site.allotted ?? 0), 0);
	if (change.bought !== null && allotted > change.bought)
		return {
			ok: false,
			message: `${counted(allotted, 'sitting')} are allotted, but ${change.bought} were bought: ${allotted - change.bought} too many.`
		};
	return transact(otium.db, async (trx): Promise<AdministrationResult> => {
		const now = await findAdministration(trx, id);
		if (!now) return { ok: false, message: 'There is no such administration any more.' };
		if (await trx('administration').where({ name: change.name }).whereNot({ id }).first('id'))
			return { ok: false, message: `There is an administration named “${change.name}” already.` };
		for (const site of change.sites) {
			const known = now.sites.find((one) => one.id === site.id);
			if (known && site.allotted !== null && site.allotted < known.used)
				return {
					ok: false,
					message: `${known.name} uses ${counted(known.used, 'sitting')} already; ${site.allotted} can’t be allotted.`
				};
			if ((site.opens === null) !== (site.closes === null) || (site.opens && site.closes && site.closes <= site.opens))
				return { ok: false, message: `${known?.name ?? 'A site'}: give both hours, the later one second, or neither.` };
		}
		await trx('administration')
			.where({ id })
			.update({ name: change.name, opens_on: change.opensOn, closes_on: change.closesOn });
		await trx('entitlement').where({ administration_id: id }).delete();
		const stock = [
			{ site_id: null as string | null, count: change.bought },
			...change.sites.map((site) => ({ site_id: site.id, count: site.allotted }))
		];
		for (const { site_id, count } of stock)
			if (count !== null) await trx('entitlement').insert({ administration_id: id, site_id, count });
		for (const site of change.sites)
			await trx('site').where({ id: site.id }).update({ opens_daily: site.opens, closes_daily: site.closes });
		await trx('paper_allowed').where({ administration_id: id }).delete();
		type Allowed = { administration_id: string; paper_id: string; site_id: string | null; group_id: string | null };
		const allowed = change.papers.flatMap((paper): Allowed[] => {
			const row = { administration_id: id, paper_id: paper.id };
			if (paper.everywhere) return [{ ...row, site_id: null, group_id: null }];
			return [
				...paper.siteIds.map((site_id) => ({ ...row, site_id, group_id: null })),
				...paper.groupIds.map((group_id) => ({ ...row, site_id: null, group_id }))
			];
		});
		for (const row of allowed) await trx('paper_allowed').insert(row);
		await appendToLogbook(trx, [{ at: otium.now(), by, kind: 'administration_changed', body: { name: change.name } }]);
		return { ok: true };
	});
}

/** A new one, in which may be sat what the latest allows; its days and its stock are its own. */
export async function makeAdministration(
	otium: Writing,
	by: Actor,
	name: string
): Promise<{ ok: true; id: string } | { ok: false; message: string }> {
	return transact(otium.db, async (trx): Promise<{ ok: true; id: string } | { ok: false; message: string }> => {
		if (await trx('administration').where({ name }).first('id'))
			return { ok: false, message: `There is an administration named “${name}” already.` };
		const [latest] = await listAdministrations(trx);
		const id = nanoid();
		await trx('administration').insert({ id, name, made_at: otium.now() });
		if (latest) {
			const allowed: object[] = await trx('paper_allowed')
				.where({ administration_id: latest.id })
				.select('paper_id', 'site_id', 'group_id');
			for (const row of allowed) await trx('paper_allowed').insert({ ...row, administration_id: id });
		} else {
			// Papers that were there before it may be sat in it, where they were written.
			const papers: { id: string; site_id: string | null }[] = await trx('paper')
				.leftJoin('paper_draft', 'paper_draft.id', 'paper.draft_id')
				.whereNull('withdrawn_at')
				.select('paper.id', 'site_id');
			for (const paper of papers)
				await trx('paper_allowed').insert({
					paper_id: paper.id,
					administration_id: id,
					site_id: paper.site_id,
					group_id: null
				});
		}
		await appendToLogbook(trx, [{ at: otium.now(), by, kind: 'administration_made', body: { name } }]);
		return { ok: true, id };
	});
}

/** A new site. Its zone can't be changed later: sessions are planned in it. */
export async function makeSite(otium: Writing, by: Actor, name: string, zone: string): Promise<AdministrationResult> {
	if (!IANAZone.isValidZone(zone))
		return { ok: false, message: `“${zone}” is not a time zone. Write one like Europe/London.` };
	return transact(otium.db, async (trx): Promise<AdministrationResult> => {
		if (await trx('site').where({ name }).first('id'))
			return { ok: false, message: `There is a site named “${name}” already.` };
		await trx('site').insert({ id: nanoid(), name, zone });
		await appendToLogbook(trx, [{ at: otium.now(), by, kind: 'site_made', body: { name, zone } }]);
		return { ok: true };
	});
}
