import type { Beneath } from '$core/closing';
import type { Sitting } from '$core/sitting';
import type { Query } from '../db';
import { digestOf } from '../digest';

/** What a site's signature would rest on now: of each part a digest. */
export async function beneathOf(db: Query, administrationId: string, siteId: string): Promise<Beneath> {
	const sessions: { id: string; ended_at: number | null; paper_id: string; kind: string }[] = await db('session')
		.join('room', 'room.id', 'session.room_id')
		.where({ administration_id: administrationId, 'room.site_id': siteId })
		.orderBy('session.id')
		.select('session.id', 'ended_at', 'paper_id', 'kind');
	const sessionIds = sessions.map(({ id }) => id);
	const sittings: { id: string; state: string; fold: string; paper_id: string }[] = await db('sitting')
		.whereIn('session_id', sessionIds)
		.orderBy('id')
		.select('id', 'state', 'fold', 'paper_id');
	const ids = sittings.map(({ id }) => id);
	const counted = (await db('logbook')
		.whereIn('sitting_id', ids)
		.where({ kind: 'answers_counted' })
		.orderBy('seq')
		.pluck('seq')) as number[];
	const incidents = await db('incident')
		.leftJoin('incident_decision', 'incident_decision.incident_id', 'incident.id')
		.whereIn('session_id', sessionIds)
		.orderBy(['incident.id', 'incident_decision.id'])
		.select(
			'incident.id',
			'incident.withdrawn_at',
			'incident_decision.id as decision',
			'incident_decision.withdrawn_at as gone'
		);
	const papers = [...new Set(sittings.map((one) => one.paper_id))];
	return {
		sessions: digestOf(sessions),
		ledger: digestOf(sittings.map(({ id, state }) => [id, state])),
		answers: digestOf([
			sittings.map(({ id, fold }) => [id, (JSON.parse(fold) as Sitting).ended?.work?.digest ?? null]),
			counted
		]),
		marks: digestOf(
			await db('hand_mark').whereIn('sitting_id', ids).whereNull('taken_back_at').orderBy('id').select('id', 'points')
		),
		corrections: digestOf(
			await db('correction')
				.where({ administration_id: administrationId })
				.whereIn('paper_id', papers)
				.whereNotNull('place')
				.orderBy('place')
				.pluck('id')
		),
		incidents: digestOf(incidents),
		validity: digestOf(
			await db('validity').whereIn('sitting_id', ids).whereNull('withdrawn_at').orderBy('id').select('id', 'verdict')
		),
		waivers: digestOf(
			await db('waiver').whereIn('sitting_id', ids).whereNull('withdrawn_at').orderBy('id').pluck('id')
		),
		grants: digestOf(
			await db('grant_given')
				.whereNull('withdrawn_at')
				.where((any) =>
					any
						.where((of) => of.where({ scope_kind: 'session' }).whereIn('scope_id', sessionIds))
						.orWhere({ scope_kind: 'administration', scope_id: administrationId })
				)
				.orderBy('id')
				.pluck('id')
		)
	};
}
