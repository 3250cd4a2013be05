import { randomInt } from 'node:crypto';
import { noPage } from '$lib/server/http';
import { practiceForm } from '$lib/server/practice';
import type { PageServerLoad } from './$types';

/** As many forms as a paper for practice can have. */
const SEEDS = 1_000_000;

export const load: PageServerLoad = async ({ locals: { otium }, params }) => {
	const seed = randomInt(SEEDS);
	const found = await practiceForm(otium.db, params.paper, seed);
	if (!found) noPage('not_found');
	const { paper, form } = found;
	// The numbers that were drawn stay here: by their names the answer could be worked out.
	const questions = form.questions.map(({ drawn: _, ...question }) => question);
	const { title, pictures = {}, practice, instructions = null } = paper;
	return { seed, title, pictures, practice: practice!, instructions, questions };
};
