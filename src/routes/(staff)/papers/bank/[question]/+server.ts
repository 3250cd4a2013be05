import { fail } from '$core/problem';
import { bankQuestion, BankChangeSchema, remark, RemarkSchema, saveBankQuestion, settleRemark } from '$lib/server/bank';
import { LARGE, route, staff } from '$lib/server/http';
import { actorAt } from '$lib/server/identity';

/** A question of the bank with its revisions, remarks and papers. */
export const GET = route(staff('write_papers'), ({ otium, staff, params }) =>
	bankQuestion(otium.db, staff, params.question, otium.now())
);

/** Its next revision, or a new question. */
export const PUT = route(
	staff('write_papers'),
	{ schema: BankChangeSchema, mostBytes: LARGE },
	async ({ otium, staff, params, body }) => {
		if (body.question.id !== params.question) fail('malformed');
		return saveBankQuestion(otium, staff, actorAt(staff, body.siteId ?? ''), body);
	}
);

/** A remark about it, or a remark that is settled. */
export const POST = route(staff('write_papers'), RemarkSchema, async ({ otium, staff, params, body }) => {
	if ('text' in body) await remark(otium, staff, params.question, body.text);
	else await settleRemark(otium, staff, params.question, body.remark, body.settled);
	return bankQuestion(otium.db, staff, params.question, otium.now());
});
