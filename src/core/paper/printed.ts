import { questionsOf } from './question';
import type { Medium, Stimulus } from './medium';
import { asDealt } from './as-dealt';
import { deal } from './deal';
import { keyInWords } from './key-in-words';
import { partLetter } from './edit';
import { typedFrom } from './typed-from-paper';
import type { Form, FormQuestion, Paper, Question } from './question';

/** A question as it stands on paper. */
export type PrintedQuestion = {
	number: number;
	part: string;
	stem: string;
	points: number;
	kind: Question['kind'];
	picture?: string;
	media?: Medium[];
	/** What stands before it and those beside it; only with the first of them. */
	stimulus?: Stimulus;
	/** What is chosen from, each with the letter that is written down: A, B, … */
	options: { letter: string; text: string }[];
	/** Of matching: what is to be matched, by number. */
	items: string[];
	unit?: string;
	/** What is right, by the letters of this form. Never printed for a candidate. */
	key: string;
};

/** Printed forms are numbered from 1. */
export const MOST_PRINTED_FORMS = 9_999;

/** The form that is printed under this number. The first stands in the order of the paper, as does the first of each of its forms. */
export function printedDeal({ forms = [], ...paper }: Paper, form: number): Form {
	const isMixed = form > Math.max(1, forms.length);
	const order = { questionsInOwnOrder: isMixed, choicesInOwnOrder: isMixed };
	const name = forms.length > 0 ? forms[(form - 1) % forms.length].name : null;
	return deal({ ...paper, forms }, order, form, name);
}

/** A form as it is printed, for the day when nothing else works: letters in the order in which it was dealt. */
export function printedForm(paper: Paper, form: Form): PrintedQuestion[] {
	const byId = new Map(questionsOf(paper).map((question) => [question.id, question]));
	return form.questions.map((dealt, i) => {
		const options = (dealt.kind === 'true_false' ? [] : (dealt.choices ?? dealt.matches ?? [])).map(({ text }, at) => ({
			letter: partLetter(at),
			text
		}));
		return {
			number: i + 1,
			part: dealt.part,
			stem: withGaps(dealt),
			points: dealt.points,
			kind: dealt.kind,
			...(dealt.picture ? { picture: dealt.picture } : {}),
			...(dealt.media ? { media: dealt.media } : {}),
			...(dealt.stimulus && dealt.stimulus.id !== form.questions[i - 1]?.stimulus?.id
				? { stimulus: dealt.stimulus }
				: {}),
			options,
			items: dealt.items?.map(({ text }) => text) ?? [],
			...(dealt.unit ? { unit: dealt.unit } : {}),
			key: keyByLetters(asDealt(byId.get(dealt.id)!, dealt), dealt)
		};
	});
}

function withGaps({ stem, gaps = [] }: FormQuestion): string {
	return gaps.reduce((text, id) => text.replace(`[${id}]`, '____________'), stem);
}

/** As a candidate who has it right would write it. */
function keyByLetters(question: Question, dealt: FormQuestion): string {
	switch (question.kind) {
		case 'single':
		case 'multiple':
		case 'ordering':
		case 'matching':
			return typedFrom(dealt, question.answer);
		default:
			return keyInWords(question);
	}
}
