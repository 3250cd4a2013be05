import { roleFor } from '$core/access';
import { z } from 'zod';
import { fail } from '$core/problem';
import type { Correction } from '$core/marking';
import { mustBeForAll } from '$lib/server/closing';
import { confirmed, route, staff } from '$lib/server/http';
import { compareRuns, confirm, decline, foresee, propose } from '$lib/server/marking';

const id = z.string().max(64);
const answer = z.union([
	z.boolean(),
	z.string().max(500),
	z.array(z.string().max(64)).max(100),
	z.record(z.string().max(64), z.string().max(500))
]);
const correction = z.discriminatedUnion('kind', [
	z.object({ kind: z.literal('key'), answer }),
	z.object({ kind: z.literal('accept'), answer }),
	z.object({ kind: z.literal('for_all') }),
	z.object({ kind: z.literal('leave_out') }),
	z.object({ kind: z.literal('points'), points: z.number() }),
	z.object({ kind: z.literal('keep') }),
	z.object({ kind: z.literal('restore') })
]);
const of = { administrationId: id, paperId: id, questionId: id };
const Asked = z.discriminatedUnion('act', [
	z.object({ act: z.literal('foresee'), ...of, correction }),
	z.object({
		act: z.literal('propose'),
		...of,
		id: z.string().min(8).max(40),
		correction,
		reason: z.string().trim().min(1, 'Say why, in a few words.').max(300)
	}),
	z.object({ act: z.literal('read'), id }),
	z.object({ act: z.literal('confirm'), id, basis: z.string().max(64) }),
	z.object({ act: z.literal('decline'), id }),
	z.object({ act: z.literal('compare'), administrationId: id, from: id, to: id })
]);

type Waiting = { administration_id: string; paper_id: string; question_id: string; body: string };

/** Corrections of a paper after it was sat: shown, proposed by one person, confirmed by another. */
export const POST = route(confirmed(staff('correct')), Asked, async ({ otium, staff, body }) => {
	const by = { role: roleFor(staff, 'correct'), id: staff.id };
	if ('administrationId' in body) {
		await mustBeForAll(otium.db, staff, 'correct', body.administrationId);
		switch (body.act) {
			case 'foresee':
				return foresee(otium, body, body.correction);
			case 'propose':
				await propose(otium, by, body.id, body, body.correction, body.reason);
				return {};
			case 'compare': {
				const runs = await otium.db('marking_run').whereIn('id', [body.from, body.to]).pluck('administration_id');
				if (runs.some((id) => id !== body.administrationId)) fail('not_found');
				return compareRuns(otium.db, body.from, body.to);
			}
		}
	}
	const row: Waiting | undefined = await otium.db('correction').where({ id: body.id }).first();
	if (!row) fail('not_found');
	await mustBeForAll(otium.db, staff, 'correct', row.administration_id);
	switch (body.act) {
		case 'read':
			return foresee(
				otium,
				{ administrationId: row.administration_id, paperId: row.paper_id, questionId: row.question_id },
				JSON.parse(row.body) as Correction
			);
		case 'confirm':
			return confirm(otium, by, body.id, body.basis);
		case 'decline':
			await decline(otium, by, body.id);
			return {};
	}
});
