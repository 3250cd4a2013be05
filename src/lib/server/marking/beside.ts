import { asDealt, keyInWords, leadOf, type AnswerValue, type Form, type Paper, type Question } from '$core/paper';
import { answerInWords } from '$core/review';
import type { Query } from '../db';
import { inParts } from '../event-loop';

/** The question that one goes with, as somebody had it, what they answered and what is right. */
export type Beside = { stem: string; answer: string; right: string };

/** So many forms are held at once: each may be a large text. */
const AT_ONCE = 200;

/** What stands beside each of these people's answers to a question that goes with another; empty: it goes with none. */
export async function besideEach(
	db: Query,
	paper: Paper,
	question: Question,
	sittingIds: string[]
): Promise<Map<string, Beside>> {
	const beside = new Map<string, Beside>();
	const lead = paper.parts
		.map(({ questions }) => questions.includes(question) && leadOf(questions, question))
		.find(Boolean);
	if (!lead) return beside;
	for await (const part of inParts(sittingIds, AT_ONCE)) {
		const forms: { sitting_id: string; form: string }[] = await db('form').whereIn('sitting_id', part);
		const rows: { sitting_id: string; value: string }[] = await db('answer_standing')
			.whereIn('sitting_id', part)
			.where({ question_id: lead.id })
			.select('sitting_id', 'value');
		const values = new Map(
			rows.map((row) => [row.sitting_id, (JSON.parse(row.value) as { value: AnswerValue }).value])
		);
		for (const { sitting_id: id, form } of forms) {
			const dealt = (JSON.parse(form) as Form).questions.find((one) => one.id === lead.id);
			if (!dealt) continue;
			const answer = answerInWords(dealt, values.get(id) ?? null);
			beside.set(id, { stem: dealt.stem, answer, right: keyInWords(asDealt(lead, dealt)) });
		}
	}
	return beside;
}
