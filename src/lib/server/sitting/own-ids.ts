import { NOTES, renameQuestion, renameValue, type AnswerValue, type Form, type FormQuestion } from '$core/paper';
import type { ReviewedQuestion } from '$core/review';
import { macOf, type Query } from '../db';

/** What is named by its question. */
type Named = { questionId: string; value: AnswerValue; struck: string[] };

/** Long enough that two of a form never meet. */
const LETTERS = 12;

/** The names under which one candidate's device knows the questions of its form and what is in them. */
export class OwnIds {
	/** As the device sees them. */
	readonly shown: FormQuestion[];
	#questions = new Map<string, FormQuestion>();
	/** By the device's name: the question, or what is in it. */
	#real = new Map<string, string>();
	#name: (questionId: string, part?: string) => string;

	constructor(db: Query, sittingId: string, form: Form) {
		const names = new Map<string, string>();
		this.#name = (questionId, part) => {
			const key = JSON.stringify([sittingId, questionId, part ?? null]);
			const known = names.get(key);
			if (known) return known;
			// Letters and digits alone: a gap stands in the words by its name.
			const name = macOf(db, 'marks', `own ${key}`).replace(/[-_]/g, 'x').slice(0, LETTERS);
			names.set(key, name);
			this.#real.set(name, part ?? questionId);
			return name;
		};
		this.shown = form.questions.map((question) => renameQuestion(question, this.#name));
		for (const question of form.questions) this.#questions.set(question.id, question);
	}

	/** What the device calls a question of this form. */
	nameOf(questionId: string): string {
		return this.#name(questionId);
	}

	/** What the paper calls a question that the device names; a name that this form has not given stays as it is. */
	questionNamed(name: string): string {
		return this.#real.get(name) ?? name;
	}

	/** As the device knows it. */
	toDevice<T extends Named>(answer: T): T {
		const question = this.#questions.get(answer.questionId);
		if (!question) return answer;
		const name = (part: string) => this.#name(question.id, part);
		return {
			...answer,
			questionId: this.#name(question.id),
			value: renameValue(question.kind, answer.value, name),
			struck: answer.struck.map(name)
		};
	}

	/** As the paper knows it. A name that this form has not given stays as it is, and fits no question then. */
	fromDevice<T extends Named>(answer: T): T {
		if (answer.questionId === NOTES) return answer;
		const real = (name: string) => this.#real.get(name) ?? name;
		const questionId = real(answer.questionId);
		const question = this.#questions.get(questionId);
		if (!question) return answer;
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
		const name = (part: string) => this.#name(id, part);
		return {
			...one,
			question: renameQuestion(one.question, this.#name),
			given: renameValue(kind, one.given, name),
			right: renameValue(kind, one.right, name)
		};
	}
}
