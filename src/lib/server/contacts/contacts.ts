import { nanoid } from 'nanoid';
import { fail } from '$core/problem';
import type { Actor } from '$core/sitting';
import { insertMany, transact, type Query } from '../db';
import type { Writing } from '../house';
import { appendToLogbook } from '../logbook';

/** Somebody to turn to during an administration, by what has gone wrong. */
export type HelpContact = {
	problem: string;
	name: string;
	telephone: string;
	email: string;
	/** When they can be reached. */
	hours: string;
	/** Shown to candidates who are refused, too. */
	forCandidates: boolean;
};

/** Whom to turn to in an administration, in the order in which they were entered. */
export async function helpIn(db: Query, administrationId: string): Promise<HelpContact[]> {
	const rows: (HelpContact & { for_candidates: number })[] = await db('contact')
		.where({ administration_id: administrationId })
		.orderBy('place')
		.select('problem', 'name', 'telephone', 'email', 'hours', 'for_candidates');
	return rows.map(({ for_candidates, ...one }) => ({ ...one, forCandidates: Boolean(for_candidates) }));
}

/** Those whom candidates may turn to on a day, `2026-12-08`, in whichever administration it is part of. */
export async function helpForCandidates(
	db: Query,
	day: string
): Promise<Omit<HelpContact, 'forCandidates' | 'email'>[]> {
	return db('contact')
		.join('administration', 'administration.id', 'contact.administration_id')
		.where({ for_candidates: 1 })
		.where((any) => any.whereNull('opens_on').orWhere('opens_on', '<=', day))
		.where((any) => any.whereNull('closes_on').orWhere('closes_on', '>=', day))
		.orderBy('contact.place')
		.limit(6)
		.select('problem', 'contact.name', 'telephone', 'hours');
}

/**
 * Keeps the contacts as they were entered.
 * @param was as they were read: somebody else's change in between is not written over
 * @throws ProblemError
 */
export async function saveHelp(
	otium: Writing,
	by: Actor,
	administrationId: string,
	{ was, contacts }: { was: HelpContact[]; contacts: HelpContact[] }
): Promise<void> {
	await transact(otium.db, async (trx) => {
		if (JSON.stringify(await helpIn(trx, administrationId)) !== JSON.stringify(was)) fail('changed_meanwhile');
		await trx('contact').where({ administration_id: administrationId }).delete();
		const rows = contacts.map(({ forCandidates, ...one }, place) => ({
			id: nanoid(),
			administration_id: administrationId,
			place,
			...one,
			for_candidates: forCandidates
		}));
		await insertMany(trx, 'contact', rows);
		await appendToLogbook(trx, [
			{ at: otium.now(), by, kind: 'contacts_changed', body: { contacts: contacts.length } }
		]);
	});
}
