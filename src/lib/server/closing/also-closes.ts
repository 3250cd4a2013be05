import { localDate, longDate } from '$core/time';
import type { Query } from '../db';
import type { Session } from '../session';

type Dates = { opensOn: string | null; closesOn: string | null };

/**
 * What closing means for what is easily forgotten: withdrawn papers, sites that were added and sat nothing, sessions of
 * other days, rehearsals. Each is a sentence; what there is none of is not spoken of.
 * @param sessions of the administration, as far as the reader may see them
 */
export async function alsoCloses(
	db: Query,
	administrationId: string,
	sessions: Session[],
	results: { paperId: string }[],
	{ opensOn, closesOn }: Dates
): Promise<string[]> {
	const withdrawn: { id: string; title: string; version: number }[] = await db('paper')
		.whereIn('id', [...new Set(sessions.map(({ paper }) => paper.id))])
		.whereNotNull('withdrawn_at')
		.orderBy(['title', 'version'])
		.select('id', 'title', 'version');
	const silent: string[] = await db('entitlement')
		.join('site', 'site.id', 'entitlement.site_id')
		.where({ administration_id: administrationId })
		.whereNotIn(
			'site_id',
			db('session')
				.join('room', 'room.id', 'session.room_id')
				.where({ administration_id: administrationId })
				.select('room.site_id')
		)
		.orderBy('site.name')
		.pluck('site.name');
	const outside = sessions.filter(({ window, site }) => {
		const day = localDate(window.opens, site.zone);
		return (opensOn !== null && day < opensOn) || (closesOn !== null && day > closesOn);
	});
	const rehearsals = sessions.filter(({ kind }) => kind === 'rehearsal').length;
	const resultsOf = (id: string) => results.filter(({ paperId }) => paperId === id).length;
	return [
		...withdrawn.map(({ id, title, version }) => {
			const count = resultsOf(id);
			return `${title} (version ${version}) was withdrawn after it was given: its ${count === 1 ? 'one result counts' : `${count} results count`} and ${count === 1 ? 'becomes' : 'become'} final all the same.`;
		}),
		...silent.map(
			(site) =>
				`${site} is part of it and has no session: nothing of it becomes final, and nothing can be sat there in it any more.`
		),
		...outside.map(
			({ name, window, site }) =>
				`${name} was on ${longDate(window.opens, site.zone)}, outside of its dates, and closes with it.`
		),
		...(rehearsals > 0
			? [
					`${rehearsals === 1 ? 'One rehearsal counts' : `${rehearsals} rehearsals count`} nothing, and ${rehearsals === 1 ? 'is' : 'are'} sealed with it.`
				]
			: [])
	];
}
