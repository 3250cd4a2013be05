import { calculatedFault, hasEndlessDecimals } from './calculated';
import { keepsPlace } from './deal';
import { shows } from './medium';
import type { Paper, Question } from './question';

/** What is doubtful about a question, or about a paper as a whole. */
export type Doubt = {
	code:
		| 'empty_stem'
		| 'no_right_answer'
		| 'equal_choices'
		| 'too_few_choices'
		| 'keeps_place'
		| 'unmarked_negative'
		| 'no_tolerance'
		| 'unused_parameter'
		| 'no_alternative_text'
		| 'gap_missing'
		| 'never_dealt'
		| 'shared_text_in_pool'
		| 'shared_text_apart'
		| 'shared_text_empty'
		| 'forms_differ'
		| 'in_no_form'
		| 'steps_apart'
		| 'steps_differ'
		| 'too_few_in_pool'
		| 'points_differ'
		| 'longest_is_right'
		| 'same_letter'
		| 'language_not_whole';
	/** A sentence, and what would help. */
	text: string;
	/** Nobody can sit it like this. */
	isGrave: boolean;
	/** The questions that it is about. */
	questionIds: string[];
	/** One press that puts it right: what it is called, and the question as it would be. */
	fix?: { label: string; question: Question };
};

/** A question that asks for what does not hold; "a vessel not under command" asks for nothing. */
const NEGATIVE = /(?:\b(?:which|what|who|where|when)\b[^.]*?)\b(not|never|incorrect|false|wrong)\b|\b(except)\b/i;

/** Fewer than these are chance: three in a row of a paper are nothing to tell. */
export const ENOUGH_TO_TELL = 5;

/** What is doubtful about one question. */
export function doubtsOf(question: Question, paper: Pick<Paper, 'pictures'>): Doubt[] {
	const doubts: Doubt[] = [];
	const say = (code: Doubt['code'], text: string, more: Partial<Doubt> = {}) =>
		doubts.push({ code, text, isGrave: false, questionIds: [question.id], ...more });

	if (question.stem.trim() === '') say('empty_stem', 'There is no question text yet.', { isGrave: true });
	const rightMissing = missingRight(question);
	if (rightMissing) say('no_right_answer', rightMissing, { isGrave: true });
	if ('choices' in question) {
		if (question.choices.length < 2)
			say('too_few_choices', 'There are fewer than two choices.', { isGrave: question.kind !== 'ordering' });
		const twice = firstTwice(question.choices.map(({ text }) => text.trim().toLowerCase()));
		if (twice !== null)
			say('equal_choices', twice === '' ? 'Some choices are empty.' : `Two choices say the same: “${twice}”.`, {
				isGrave: twice === ''
			});
		const kept = question.kind === 'ordering' ? [] : question.choices.filter(keepsPlace);
		if (kept.length > 0)
			say('keeps_place', `“${kept[0].text}” points at other choices, so it keeps its place when choices are mixed.`);
	}
	const found = NEGATIVE.exec(question.stem);
	const negative = found?.[1] ?? found?.[2];
	const isStrong = negative !== undefined && question.stem.includes(`**${negative}**`);
	if (question.kind !== 'essay' && negative && !isStrong && negative !== negative.toUpperCase()) {
		const at = question.stem.lastIndexOf(negative, found!.index + found![0].length);
		const stem = question.stem.slice(0, at) + negative.toUpperCase() + question.stem.slice(at + negative.length);
		say('unmarked_negative', `“${negative}” is easily missed. Put it in capitals, or ask for what is right.`, {
			fix: { label: `Write ${negative.toUpperCase()}`, question: { ...question, stem } }
		});
	}
	if (question.kind === 'numeric' && question.tolerance.amount === 0 && !Number.isInteger(question.answer))
		say('no_tolerance', 'Only exactly this decimal counts as right: rounding differently is wrong.', {
			fix: {
				label: 'Allow 1 %',
				question: { ...question, tolerance: { kind: 'relative', amount: 0.01 } }
			}
		});
	if (question.kind === 'calculated' && rightMissing === null) {
		const unused = question.parameters.find(({ name }) => !wordsIn(question.formula).includes(name));
		if (unused) say('unused_parameter', `{${unused.name}} is drawn, and the formula does not use it.`);
		if (question.tolerance.amount === 0 && hasEndlessDecimals(question))
			say('no_tolerance', 'Its answers can have endless decimals: rounding differently is wrong.', {
				fix: { label: 'Allow 1 %', question: { ...question, tolerance: { kind: 'relative', amount: 0.01 } } }
			});
	}
	if (question.picture && !paper.pictures?.[question.picture]?.alt.trim())
		say('no_alternative_text', 'The picture has no alternative text.');
	const mute = [...(question.media ?? []), ...(question.stimulus?.media ?? [])].find(({ alt }) => !alt.trim());
	if (mute)
		say(
			'no_alternative_text',
			`The ${shows(mute)} has no alternative text. Say what it ${shows(mute) === 'sound' ? 'says' : 'shows'}, without giving the answer away.`
		);
	const { stimulus } = question;
	if (stimulus && !stimulus.text.trim() && !stimulus.media?.length)
		say('shared_text_empty', 'The shared text is empty. Write it, or take the question out of it.');
	if (question.kind === 'fill_in') {
		const missing = question.gaps.filter(({ id }) => !question.stem.includes(`[${id}]`));
		if (missing.length > 0)
			say('gap_missing', `The text has no place for the gap: write [${missing[0].id}] where it belongs.`, {
				isGrave: true
			});
	}
	return doubts;
}

function missingRight(question: Question): string | null {
	switch (question.kind) {
		case 'single':
			return question.choices.some(({ id }) => id === question.answer) ? null : 'No choice is marked as right.';
		case 'multiple':
			return question.answer.some((id) => question.choices.some((choice) => choice.id === id))
				? null
				: 'No choice is marked as right.';
		case 'matching': {
			const open = question.items.filter(({ id }) => !question.matches.some((one) => one.id === question.answer[id]));
			return open.length === 0 && question.items.length > 0
				? null
				: `Nothing is matched with “${open[0]?.text ?? 'the first'}”.`;
		}
		case 'fill_in': {
			if (question.gaps.length === 0) return 'There is no gap to fill in.';
			return question.gaps.every(({ accepted }) => accepted.some((one) => one.trim() !== ''))
				? null
				: 'A gap has no accepted answer.';
		}
		case 'short':
			return question.accepted.some((one) => one.trim() !== '') ? null : 'There is no accepted answer.';
		case 'calculated':
			return calculatedFault(question);
		default:
			return null;
	}
}

const wordsIn = (formula: string): string[] => formula.match(/[A-Za-z_][A-Za-z0-9_]*/g) ?? [];

function firstTwice(texts: string[]): string | null {
	return texts.find((text, i) => texts.indexOf(text) < i) ?? null;
}
