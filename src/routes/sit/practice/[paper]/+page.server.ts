import { randomInt } from 'node:crypto';
import { noPage } from '$lib/server/http';
import { practiceForm, practicePapers } from '$lib/server/practice';
import type { PageServerLoad } from './$types';

/** As many forms as a paper for practice can have. */
const SEEDS = 1_000_000;

export const load: PageServerLoad = async ({ locals: { otium }, params }) => {
	if (!(await practicePapers(otium.db)).some(({ id }) => id === params.paper)) noPage('not_found');
	const seed = randomInt(SEEDS);
	const { paper, form } = await practiceForm(otium.db, params.paper, seed);
	// The numbers that were drawn stay here: by their names the answer could be worked out.
	const questions = form.questions.map(({ drawn: _, ...question }) => question);
	const { title, pictures = {}, practice, instructions = null } = paper;
	return { seed, title, pictures, practice: practice!, instructions, questions };
};
