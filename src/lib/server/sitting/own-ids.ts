import {
	NOTES,
	renameQuestion,
	renameValue,
	type AnswerShape,
	type AnswerValue,
	type FormQuestion,
	type Name
} from '$core/paper';
import type { ReviewedQuestion } from '$core/review';
import { macOf, type Query } from '../db';

/** What is named by its question. */
type Named = { questionId: string; value: AnswerValue; struck: string[] };

/** What nothing in a paper is called. */
const NO_PART = '\u0000';

/** Long enough that two of a form never meet. */
const LETTERS = 12;

/**
 * The names under which one candidate's device knows the questions of its form and what is in them. They follow from a
 * key of the house, so that next to nothing is kept of them for each candidate.
 */
export class OwnIds {
	/** By the paper's name, and by the device's. */
	#questions = new Map<string, AnswerShape>();
	#byOwn = new Map<string, AnswerShape>();

	constructor(
		private readonly db: Query,
		private readonly sittingId: string,
		questions: AnswerShape[]
	) {
		for (const question of questions) {
			this.#questions.set(question.id, question);
			this.#byOwn.set(this.nameOf(question.id), question);
		}
	}

	/** What the device calls a question of this form, or what is in it. */
	nameOf: Name = (questionId, part) => {
		const key = JSON.stringify([this.sittingId, questionId, part ?? null]);
		// Letters and digits alone: a gap stands in the words by its name.
		return macOf(this.db, 'marks', `own ${key}`).replace(/[-_]/g, 'x').slice(0, LETTERS);
	};

	/** What the paper calls a question that the device names; null: this form has given no such name. */
	questionNamed(name: string): string | null {
		return this.#byOwn.get(name)?.id ?? null;
	}

	/** A question as the device sees it. */
	show(question: FormQuestion): FormQuestion {
		return renameQuestion(question, this.nameOf);
	}

	/** As the device knows it. */
	toDevice<T extends Named>(answer: T): T {
		const question = this.#questions.get(answer.questionId);
		if (!question) return answer;
		const name = (part: string) => this.nameOf(question.id, part);
		return {
			...answer,
			questionId: this.nameOf(question.id),
			value: renameValue(question.kind, answer.value, name),
			struck: answer.struck.map(name)
		};
	}

	/**
	 * As the paper knows it; null: it is for no question of this form. The paper's own names are nobody's here: whoever
	 * has not had the form from us knows those at most. A part that this form has not named fits nothing.
	 */
	fromDevice<T extends Named>(answer: T): T | null {
		if (answer.questionId === NOTES) return answer;
		const question = this.#byOwn.get(answer.questionId);
		if (!question) return null;
		const questionId = question.id;
		const parts = new Map(partsOf(question).map((part) => [this.nameOf(questionId, part), part]));
		const real = (name: string) => parts.get(name) ?? NO_PART;
		return {
			...answer,
			questionId,
			value: renameValue(question.kind, answer.value, real),
			struck: answer.struck.map(real)
		};
	}

	/** A question that is looked back at, under the names that the device knows. */
	reviewed(one: ReviewedQuestion): ReviewedQuestion {
		const { id, kind } = one.question;
		const name = (part: string) => this.nameOf(id, part);
		return {
			...one,
			question: this.show(one.question),
			given: renameValue(kind, one.given, name),
			right: renameValue(kind, one.right, name)
		};
	}
}

/** The paper's names of all that an answer to this question can name. */
function partsOf({ choices = [], items = [], matches = [], gaps = [] }: AnswerShape): string[] {
	return [...[...choices, ...items, ...matches].map(({ id }) => id), ...gaps];
}
