import { readOwnNote } from '$lib/server/identity';
import { ownPage } from '$lib/server/requests';
import { ownResults } from '$lib/server/results';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals: { otium }, params }) => {
	const now = otium.now();
	const candidateId = await readOwnNote(otium.db, params.note, now);
	const own = candidateId === null ? null : await ownPage(otium.db, candidateId, now);
	return { now, own, results: own ? await ownResults(otium, candidateId!) : [] };
};
