import { json } from '@sveltejs/kit';
import { GrantAsked, giveGrant, readGrant } from '$lib/server/grants';
import { orTryAgain, problem, readJson, SIGNED_OUT } from '$lib/server/http';
import { actorAt } from '$lib/server/identity';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = async ({ request, locals: { otium, staff } }) => {
	if (!staff) return problem(401, SIGNED_OUT);
	const body = await readJson(request, GrantAsked);
	if (!body.ok) return body.response;
	if (body.data.reason === '')
		return problem(422, {
			code: 'reason_missing',
			message: 'A reason is needed.',
			instead: 'Say in a few words why, and who asked.'
		});
	const read = await readGrant(otium, staff, body.data);
	if (!read.ok) return problem(read.status, read);
	return orTryAgain(async () =>
		json(await giveGrant(otium, actorAt(staff, read.one.session.site.id), body.data.id, read.grant))
	);
};
