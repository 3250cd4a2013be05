import { nanoid } from 'nanoid';
import { foldNumber } from '$core/access';
import { newSitting, type SittingState } from '$core/sitting';
import type { Query } from '$lib/server/db';
import type { Session } from '$lib/server/session';

export type Person = { number: string; family: string };

/** Who could come: the roster of a session, in the states asked for. */
export async function findRoster(db: Query, sessionId: string, states: SittingState[]): Promise<Person[]> {
	return db('sitting')
		.join('candidate', 'candidate.id', 'sitting.candidate_id')
		.where('sitting.session_id', sessionId)
		.whereIn('sitting.state', states)
		.orderBy('candidate.number')
		.select('candidate.number', 'candidate.family');
}

/**
 * Puts invented candidates on a demo session's roster, so that as many can come as are asked for. They stand in the live
 * room once they are at the door.
 */
export async function enrol(db: Query, session: Session, count: number): Promise<Person[]> {
	const [{ known }] = (await db('candidate').where('number', 'like', 'CR-%').count('* as known')) as {
		known: number;
	}[];
	const people = Array.from({ length: count }, (_, i) => ({
		id: nanoid(),
		sitting: nanoid(),
		number: `CR-${10_001 + known + i}`
	}));
	await db('candidate_group')
		.insert({ id: 'crowd', site_id: session.site.id, name: 'Crowd' })
		.onConflict('id')
		.ignore();
	for (const { id, sitting, number } of people) {
		const family = `Sailor${number.slice(3)}`;
		await db('candidate').insert({
			id,
			number,
			number_folded: foldNumber(number),
			given: 'Ada',
			family,
			group_id: 'crowd'
		});
		await db('sitting').insert({
			id: sitting,
			candidate_id: id,
			administration_id: session.administrationId,
			paper_id: session.paper.id,
			session_id: session.id,
			counts: session.kind !== 'rehearsal',
			state: 'expected',
			fold: JSON.stringify(newSitting(sitting, session.id, Date.now()))
		});
		await db('roster').insert({ session_id: session.id, sitting_id: sitting, seat: null });
	}
	return people.map(({ number }) => ({ number, family: `Sailor${number.slice(3)}` }));
}
