import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { device, route } from '$lib/server/http';
import { RevisionAsked } from '$lib/server/answers';

/** The longest paper with every answer changed a few times while the line was down. */
const MOST_AT_ONCE = 500;

const Revisions = z.object({ revisions: z.array(RevisionAsked).min(1).max(MOST_AT_ONCE) });

const KEPT = {
	after_end: {
		message: 'The time for this paper was over when these answers arrived.',
		instead: 'They are kept with your sitting. Tell your proctor if your connection was lost.'
	},
	on_hold: {
		message: 'Your paper was paused when these answers arrived.',
		instead: 'They are kept with your sitting. Tell your proctor when your paper continues.'
	},
	question_over: {
		message: 'The time for this question was up when the answer arrived.',
		instead: 'It is kept with your sitting. Tell your proctor if your connection was lost.'
	},
	gone_past: {
		message: 'This paper does not go back, and the question has been passed.',
		instead: 'Your earlier answer counts.'
	},
	unproven: {
		message: 'Nothing showed that these answers come from your device.',
		instead: 'They are kept with your sitting. Tell your proctor.'
	},
	freed_device: {
		message: 'This exam has moved to another device.',
		instead: 'These answers are kept with your sitting. Continue on the other device.'
	}
};

/** Saves revisions of answers; answered after the commit, never before. */
export const POST = route(
	device,
	// Some essays at once, after a line that was down.
	{ schema: Revisions, mostBytes: 1024 * 1024 },
	async ({ otium, device, body }) => {
		const bytes = body.revisions.reduce((sum, { value }) => sum + (typeof value === 'string' ? value.length : 500), 0);
		await otium.quotas.take('answers', device.sittingId, bytes);
		const saved = await otium.answers.saveSent(device.sittingId, device.epoch, body.revisions);
		if (saved.kept) return json({ code: saved.kept, ...KEPT[saved.kept], ...saved }, { status: 409 });
		otium.presence.seen(device.sittingId);
		return saved;
	}
);
