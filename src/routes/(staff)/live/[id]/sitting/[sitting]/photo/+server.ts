import { fail } from '$core/problem';
import { inSession, route } from '$lib/server/http';
import { readPhoto } from '$lib/server/pictures';

/** The photo of a candidate of this session. */
export const GET = route(inSession('see_session'), async ({ otium, session, params }) => {
	const row = await otium
		.db('roster')
		.join('sitting', 'sitting.id', 'roster.sitting_id')
		.where({ 'roster.session_id': session.id, sitting_id: params.sitting })
		.first('candidate_id');
	const photo = row ? await readPhoto(otium, row.candidate_id) : null;
	if (!photo) fail('not_found');
	return new Response(new Uint8Array(photo.bytes), { headers: { 'content-type': photo.type } });
});
