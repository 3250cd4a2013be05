import { allowSession, NO_SUCH_THING, problem } from '$lib/server/http';
import { readPhoto } from '$lib/server/pictures';
import type { RequestHandler } from './$types';

/** The photo of a candidate of this session. */
export const GET: RequestHandler = async (event) => {
	const { id, sitting } = event.params;
	const allowed = await allowSession(event, id, 'see_session');
	if (!allowed.ok) return allowed.response;
	const row = await allowed.otium
		.db('roster')
		.join('sitting', 'sitting.id', 'roster.sitting_id')
		.where({ 'roster.session_id': id, sitting_id: sitting })
		.first('candidate_id');
	const photo = row ? await readPhoto(allowed.otium, row.candidate_id) : null;
	if (!photo) return problem(404, NO_SUCH_THING);
	return new Response(new Uint8Array(photo.bytes), { headers: { 'content-type': photo.type } });
};
