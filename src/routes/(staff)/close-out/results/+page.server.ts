import { ROLE_NAMES, sitesWith } from '$core/access';
import { closingOf, mustBeForAll } from '$lib/server/closing';
import { requireStaff } from '$lib/server/http';
import { MOST_LISTED } from '$lib/server/most-listed';
import { paperVersion } from '$lib/server/paper';
import { RELEASE_SHOWS, RELEASE_TO, releasesOf, resultLines } from '$lib/server/results';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'see_closing');
	const { here } = await event.parent();
	const { db } = event.locals.otium;
	if (!here)
		return {
			papers: [],
			lines: [],
			of: 0,
			releases: [],
			shows: RELEASE_SHOWS,
			roles: [],
			isFinal: false,
			mayRelease: false
		};
	const sites = sitesWith(staff, 'see_closing');
	const lines = await resultLines(db, (query) => {
		query.where('sitting.administration_id', here.id);
		if (sites !== null) query.whereIn('site.id', sites);
	});
	const papers = new Map<string, { title: string; results: number; toMark: number; last: number }>();
	for (const { sitting, result } of lines) {
		const { paperId } = sitting;
		const known = papers.get(paperId) ?? {
			title: (await paperVersion(db, paperId)).title,
			results: 0,
			toMark: 0,
			last: 0
		};
		known.results++;
		known.toMark += result.toMark > 0 ? 1 : 0;
		papers.set(paperId, known);
	}
	const asked = event.url.searchParams.get('paper');
	const wanted = asked === 'all' ? null : asked;
	const shown = lines.filter(({ sitting }) => !wanted || sitting.paperId === wanted);
	return {
		papers: [...papers].map(([id, one]) => ({ id, ...one })),
		chosen: wanted,
		of: shown.length,
		lines: shown.slice(0, MOST_LISTED).map(({ sitting, name, result, validity, counted }) => ({
			sittingId: sitting.sittingId,
			name,
			number: sitting.number,
			session: sitting.session,
			paper: papers.get(sitting.paperId)!.title,
			attempt: sitting.attempt,
			points: result.points,
			outOf: result.outOf,
			toMark: result.toMark,
			band: result.band?.name ?? null,
			passed: result.passed,
			validity,
			counted
		})),
		releases: await releasesOf(db, here.id),
		shows: RELEASE_SHOWS,
		roles: RELEASE_TO.map((role) => ({ role, name: ROLE_NAMES[role] })),
		isFinal: (await closingOf(db, here.id)) !== null,
		mayRelease: await mustBeForAll(db, staff, 'release', here.id).then(
			() => true,
			() => false
		)
	};
};
