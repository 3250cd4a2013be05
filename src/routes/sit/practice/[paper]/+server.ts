import { z } from 'zod';
import { tryQuestion } from '$core/practice';
import { fail } from '$core/problem';
import { fitsQuestion, type AnswerValue } from '$core/paper';
import { anyone, route } from '$lib/server/http';
import { practiceForm } from '$lib/server/practice';

const Tried = z.object({
	seed: z.number().int().min(0).max(1_000_000),
	questionId: z.string().max(64),
	value: z.unknown(),
	tries: z.number().int().min(1).max(50)
});

/** A try at one question, marked at once. Nothing is kept of it. */
export const POST = route(anyone, Tried, async ({ otium, body, params, locals }) => {
	await otium.quotas.take('practice', locals.address);
	const found = await practiceForm(otium.db, params.paper, body.seed);
	if (!found) fail('not_found', { message: 'This is no paper for practice.', instead: 'Choose one from the list.' });
	const { paper, form } = found;
	const dealt = form.questions.find(({ id }) => id === body.questionId);
	const value = (body.value ?? null) as AnswerValue;
	if (!dealt) fail('unknown_question');
	if (!fitsQuestion(dealt, value)) fail('unfitting_answer');
	return tryQuestion(paper, form, body.questionId, value, body.tries, paper.practice!)!;
});
