import { randomInt } from 'node:crypto';
import { questionsOf } from '$core/paper';
import { practised } from '$core/practice';
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
	const questions = practised(form, paper.practice!).questions.map(({ drawn: _, ...question }) => question);
	const { title, pictures = {}, practice, instructions = null, material = [] } = paper;
	const shown = new Set(questions.map(({ id }) => id));
	/** Those that may be tried otherwise than the others. */
	const own = Object.fromEntries(
		questionsOf(paper).flatMap((one) => (one.practice && shown.has(one.id) ? [[one.id, one.practice]] : []))
	);
	return { seed, title, pictures, practice: practice!, own, instructions, material, questions };
};
