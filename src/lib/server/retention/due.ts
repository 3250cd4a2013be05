import { closedBefore, keptUntil, type RetentionTerms } from '$core/retention';
import type { Query } from '../db';
import { inParts } from '../event-loop';

/** So many sittings are looked at before everything else has its turn. */
const AT_ONCE = 100;

/** What of a closed administration has a time of its own. */
export type Emptied = 'answers' | 'log';
export type Due = { id: string; name: string };

/** Closed administrations whose time has come for this, and in which it has not been done to the end. */
export function dueFor(db: Query, what: Emptied, years: number, now: number): Promise<Due[]> {
	const done = db('emptied').where({ what }).whereNotNull('done_at').select('administration_id');
	return db('closing')
		.join('administration', 'administration.id', 'closing.administration_id')
		.where('closing.at', '<=', closedBefore(now, years))
		.whereNotIn('administration.id', done)
		.orderBy('closing.at')
		.select('administration.id', 'administration.name');
}

/**
 * Administrations that are not due, with answers that were committed in one group with some of this one: a group is proven
 * whole, so it goes when the last of them does.
 */
export async function waitsFor(db: Query, administrationId: string, years: number, now: number): Promise<string[]> {
	const due = db('closing').where('at', '<=', closedBefore(now, years)).select('administration_id');
	const sittings: string[] = await db('sitting').where({ administration_id: administrationId }).pluck('id');
	const names = new Set<string>();
	for await (const ids of inParts(sittings, AT_ONCE)) {
		const groups = db('answer').whereIn('sitting_id', ids).whereNotNull('group_seq').distinct('group_seq');
		const others: string[] = await db('answer')
			.join('sitting', 'sitting.id', 'answer.sitting_id')
			.join('administration', 'administration.id', 'sitting.administration_id')
			.whereIn('group_seq', groups)
			.whereNot({ administration_id: administrationId })
			.whereNotIn('administration_id', due.clone())
			.distinct('administration.name')
			.pluck('administration.name');
		for (const name of others) names.add(name);
	}
	return [...names];
}

/** When answers and log of an administration go; null: not by themselves, or not yet closed. */
export async function goes(
	db: Query,
	administrationId: string,
	terms: RetentionTerms
): Promise<Record<Emptied, { at: number | null; done: number | null }>> {
	const closing = await db('closing').where({ administration_id: administrationId }).first('at');
	const done: { what: Emptied; done_at: number | null }[] = await db('emptied')
		.where({ administration_id: administrationId })
		.select('what', 'done_at');
	const of = (what: Emptied) => {
		const years = terms[what];
		const gone = done.find((one) => one.what === what)?.done_at ?? null;
		return {
			at: closing && years !== null && gone === null ? keptUntil(closing.at as number, years) : null,
			done: gone
		};
	};
	return { answers: of('answers'), log: of('log') };
}
