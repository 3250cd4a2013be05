import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { NOT_AT_THE_DOOR, orNotSavedYet, problem, readJson } from '$lib/server/http';
import { RevisionAsked, UnfittingAnswer, UnknownQuestion } from '$lib/server/answers';
import type { RequestHandler } from './$types';

/** The longest paper with every answer changed a few times while the line was down. */
const MOST_AT_ONCE = 500;

const Revisions = z.object({ revisions: z.array(RevisionAsked).min(1).max(MOST_AT_ONCE) });

const KEPT = {
	after_end: {
		message: 'The time for this paper was over when these answers arrived.',
		instead: 'They are kept with your sitting. Tell your proctor if your line was down.'
	},
	on_hold: {
		message: 'Your paper was paused when these answers arrived.',
		instead: 'They are kept with your sitting. Tell your proctor when your paper continues.'
	},
	gone_past: {
		message: 'This paper does not go back, and the question has been passed.',
		instead: 'What you had answered before stands.'
	},
	freed_device: {
		message: 'This paper has been moved to another device.',
		instead: 'These answers are kept with your sitting. Go on at the other device.'
	}
};

/** Saves revisions of answers; answered after the commit, never before. */
export const POST: RequestHandler = async ({ request, locals: { otium, device } }) => {
	if (!device) return problem(401, NOT_AT_THE_DOOR);
	const body = await readJson(request, Revisions);
	if (!body.ok) return body.response;
	return orNotSavedYet(async () => {
		try {
			const saved = await otium.answers.save(device.sittingId, device.epoch, body.data.revisions);
			if (saved.kept) return json({ code: saved.kept, ...KEPT[saved.kept], ...saved }, { status: 409 });
			otium.presence.seen(device.sittingId);
			return json(saved);
		} catch (error) {
			if (error instanceof UnfittingAnswer) {
				return problem(422, {
					code: 'unfitting_answer',
					message: 'An answer does not fit its question.',
					instead: 'Load the page again and give it anew; what was saved is safe.'
				});
			}
			if (!(error instanceof UnknownQuestion)) throw error;
			return problem(422, {
				code: 'unknown_question',
				message: 'An answer is for a question that is not on this form.',
				instead: 'Load the page again; what was saved is safe.'
			});
		}
	});
};
