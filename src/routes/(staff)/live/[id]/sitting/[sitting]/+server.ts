import { isBlank } from '$core/paper';
import { fail } from '$core/problem';
import type { CandidateDetails } from '$core/room';
import { inSession, route } from '$lib/server/http';
import { standingAnswers } from '$lib/server/answers';
import { effectWordsOf } from '$lib/server/grants';
import { incidentsOf } from '$lib/server/incidents';
import { messagesOf } from '$lib/server/messages';
import { snapshotsOf } from '$lib/server/pictures';
import { searchLogbook } from '$lib/server/logbook';
import { isOnRoster } from '$lib/server/session';
import { formOf, loadSitting } from '$lib/server/sitting';

/** One candidate beside the room: time and all that made it, what happened so far, how long each question took. */
export const GET = route(inSession('see_session'), async ({ otium, session, params }) => {
	const isHere = await isOnRoster(otium.db, session.id, params.sitting);
	const now = otium.now();
	const one = isHere ? await loadSitting(otium.db, params.sitting, now) : null;
	if (!one) fail('not_found');

	const form = await formOf(otium.db, one.sitting.id);
	const answers = (await standingAnswers(otium.db, [one.sitting.id])).get(one.sitting.id) ?? [];
	const thresholds = await otium.pace.thresholdsOf(otium.db, one.paperId);
	const byId = new Map(answers.map((answer) => [answer.questionId, answer]));
	const details: CandidateDetails = {
		time: {
			words: effectWordsOf(one),
			reasons: one.merge.reasons,
			stoppedMs: one.reckoning.stopped,
			cutMs: one.reckoning.cut,
			allotted: one.reckoning.allotted,
			credits: one.reckoning.credits,
			origin: one.reckoning.origin
		},
		form: form?.name ?? null,
		history: (await searchLogbook(otium.db, { sittingId: one.sitting.id, limit: 60 })).reverse(),
		messages: await messagesOf(otium.db, one.sitting.id),
		incidents: (await incidentsOf(otium.db, session.id, one.sitting.id)).map(
			({ id, kind, happenedAt, note, done, minutes }) => ({
				id,
				kind,
				happenedAt,
				note,
				done,
				minutes
			})
		),
		snapshots: await snapshotsOf(otium.db, one.sitting.id),
		photo: (await otium.db('candidate').where({ id: one.candidate.id }).first('photo_at')).photo_at !== null,
		questions: (form?.questions ?? []).map((question, i) => {
			const answer = byId.get(question.id);
			return {
				thresholdMs: Math.round(thresholds.get(question.id) ?? 0),
				number: i + 1,
				answered: answer !== undefined && !isBlank(answer.value),
				marked: answer?.marked ?? false,
				inViewMs: answer?.inViewMs ?? 0
			};
		})
	};
	return details;
});
