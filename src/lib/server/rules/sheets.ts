import { nanoid } from 'nanoid';
import { may, mayAnywhere, type StaffMember } from '$core/access';
import { differingRules, rulesFor, SHIPPED_SHEETS, type RuleDifference } from '$core/rules';
import { completeRules, type SessionRules } from '$core/session';
import type { Actor } from '$core/sitting';
import { asEntered, twoLimitsInWords } from '$core/time';
import { transact, type Query } from '../db';
import { appendToLogbook } from '../logbook';
import type { Writing } from '../house';
import { doorOpensAt, findSessions, type Session } from '../session';

/** A rule sheet: one that Writing brings along and nobody changes, or one of the house's own. */
export type RuleSheet = {
	id: string;
	name: string;
	note: string;
	rules: SessionRules;
	/** Whose coordinators may change it; null: those of all sites. */
	siteId: string | null;
	shipped: boolean;
	revision: number;
};

/** All that are in use, the house's own first. */
export async function listSheets(db: Query): Promise<RuleSheet[]> {
	type Row = { id: string; name: string; note: string; rules: string; revision: number; site_id: string | null };
	const rows: Row[] = await db('rule_sheet').whereNull('withdrawn_at').orderBy('name');
	return [
		...rows.map(({ rules, site_id, ...row }) => ({
			...row,
			siteId: site_id,
			rules: completeRules(JSON.parse(rules)),
			shipped: false
		})),
		...SHIPPED_SHEETS.map((sheet) => ({ ...sheet, siteId: null, shipped: true, revision: 1 }))
	];
}

export async function findSheet(db: Query, id: string): Promise<RuleSheet | null> {
	return (await listSheets(db)).find((sheet) => sheet.id === id) ?? null;
}

/** Whether somebody may change or withdraw a sheet: one of all sites takes somebody who coordinates them all. */
export function mayChangeSheet(
	staff: StaffMember,
	{ siteId, shipped }: Pick<RuleSheet, 'siteId' | 'shipped'>
): boolean {
	if (shipped) return false;
	return siteId === null ? mayAnywhere(staff, 'change_shared') : may(staff, 'prepare', { siteId, proctorIds: [] });
}

export type SheetResult = { ok: true; id: string; revision: number } | { ok: false; message: string };

/**
 * Copies a sheet under a name that nobody has yet.
 * @param siteId whose copy it is; null: that of all sites
 */
export async function copySheet(
	otium: Writing,
	by: Actor,
	fromId: string,
	siteId: string | null
): Promise<SheetResult> {
	return transact(otium.db, async (trx) => {
		const sheets = await listSheets(trx);
		const from = sheets.find((sheet) => sheet.id === fromId);
		if (!from) return { ok: false, message: 'This rule sheet is gone. Choose another from the list.' };
		let name = `${from.name}, our own`;
		for (let n = 2; sheets.some((sheet) => sheet.name === name); n++) name = `${from.name}, our own ${n}`;
		const id = nanoid();
		await trx('rule_sheet').insert({ id, name, note: from.note, rules: JSON.stringify(from.rules), site_id: siteId });
		await appendToLogbook(trx, [{ at: otium.now(), by, kind: 'rule_sheet_copied', body: { name, from: from.name } }]);
		return { ok: true, id, revision: 1 };
	});
}

/** Saves a sheet of the house's own. Sessions that have copied it keep what they have. */
export async function saveSheet(
	otium: Writing,
	by: Actor,
	sheet: { id: string; revision: number; name: string; note: string; rules: SessionRules }
): Promise<SheetResult> {
	return transact(otium.db, async (trx) => {
		const old = await findSheet(trx, sheet.id);
		if (!old) return { ok: false, message: 'This rule sheet has been withdrawn. Copy another one.' };
		if (old.shipped) return { ok: false, message: 'A shipped sheet stays as it is. Copy it, and change the copy.' };
		if (old.revision !== sheet.revision)
			return {
				ok: false,
				message: 'Somebody else has just changed this sheet. Load it again to see their changes.'
			};
		const { questionSeconds, limitMinutes } = sheet.rules.timing;
		if (questionSeconds !== null && limitMinutes !== null)
			return {
				ok: false,
				message: `${twoLimitsInWords(limitMinutes, questionSeconds)} Leave one empty.`
			};
		const namesake = (await listSheets(trx)).find((one) => one.name === sheet.name && one.id !== sheet.id);
		if (namesake) return { ok: false, message: `There is a sheet named “${sheet.name}” already. Choose another name.` };
		const revision = old.revision + 1;
		await trx('rule_sheet')
			.where({ id: sheet.id })
			.update({ name: sheet.name, note: sheet.note, rules: JSON.stringify(sheet.rules), revision });
		const changes = differingRules(old.rules, sheet.rules).map(({ setting }) => setting.name);
		await appendToLogbook(trx, [
			{ at: otium.now(), by, kind: 'rule_sheet_changed', body: { name: sheet.name, changes } }
		]);
		return { ok: true, id: sheet.id, revision };
	});
}

/** Takes a sheet out of the list; sessions keep their copies. */
export async function withdrawSheet(otium: Writing, by: Actor, id: string): Promise<SheetResult> {
	return transact(otium.db, async (trx) => {
		const sheet = await findSheet(trx, id);
		if (!sheet || sheet.shipped) return { ok: false, message: 'Only sheets of your own can be withdrawn.' };
		await trx('rule_sheet')
			.where({ id })
			.update({ withdrawn_at: otium.now(), name: `${sheet.name} (withdrawn ${id})` });
		await appendToLogbook(trx, [{ at: otium.now(), by, kind: 'rule_sheet_withdrawn', body: { name: sheet.name } }]);
		return { ok: true, id, revision: sheet.revision };
	});
}

/** What applying a sheet to a session would change. A session whose door is open is left alone. */
export type Application = { session: Session; changes: RuleDifference[]; refused: string | null };

export async function foreseeApplication(
	db: Query,
	sheet: RuleSheet,
	sessionIds: string[],
	now: number
): Promise<Application[]> {
	const sessions = await findSessions(db, (query) => query.whereIn('session.id', sessionIds));
	return sessions.map((session) => ({
		session,
		changes: differingRules(asEntered(session.rules), rulesFor(session.rules, sheet.rules)),
		refused:
			session.endedAt !== null
				? 'has ended'
				: now >= doorOpensAt(session) || session.doorCode !== null
					? 'its door is open'
					: null
	}));
}
