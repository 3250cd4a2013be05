import { unsafeUniformIntDistribution as uniformInt } from 'pure-rand/distribution/UnsafeUniformIntDistribution';
import { mersenne } from 'pure-rand/generator/MersenneTwister';
import type { RandomGenerator } from 'pure-rand/types/RandomGenerator';
import { groupBy } from '../group-by';
import { draw, worded } from './calculated';
import { formFor, inForm, type FormLetter } from './paper-forms';
import { poolsOf } from './pools';
import type { Choice, Form, FormQuestion, Paper, Question } from './question';
import { unitsOf } from './units';

export type OrderRules = { questionsInOwnOrder: boolean; choicesInOwnOrder: boolean };

/**
 * The same paper, rules and seed give the same form for ever.
 * @param name which of the paper's forms; without, the seed decides where there are some
 */
export function deal(whole: Paper, order: OrderRules, seed: number, name?: FormLetter | null): Form {
	const form = name ?? formFor(whole, 'dealt', { seed, site: null, group: null, seat: null });
	const paper = inForm(whole, form);
	// The Mersenne Twister, for its seeding: seeds that lie side by side must not deal forms that resemble each other.
	const random = mersenne(seed);
	const questions = paper.parts.flatMap((part) => {
		const drawn =
			part.draw === null
				? unitsOf(part.questions)
				: poolsOf(part).flatMap(({ draw, units }) => shuffled(units, random).slice(0, draw));
		// Drawn questions stand in the paper's order unless the rules say otherwise: drawing and mixing are two switches.
		const inPaperOrder = part.draw === null ? drawn : inOrderOf(part.questions, drawn);
		// What stands under one text stays together, in its order.
		const blocks = together(inPaperOrder);
		const ordered = (order.questionsInOwnOrder ? shuffled(blocks, random) : blocks).flat();
		return ordered.flatMap((unit) =>
			unit.map((question, i) => ({
				...toFormQuestion(question, part.title, order, random),
				...(i > 0 ? { isStep: true as const } : {})
			}))
		);
	});
	return { seed, ...(form === null ? {} : { name: form }), questions };
}

/** Units as they stand among these questions. */
function inOrderOf(questions: Question[], units: Question[][]): Question[][] {
	const byFirst = new Map(units.map((unit) => [unit[0], unit]));
	return questions.flatMap((question) => {
		const unit = byFirst.get(question);
		return unit ? [unit] : [];
	});
}

/** Units in the order of the paper, those of one stimulus in one block where the first of them stands. */
function together(units: Question[][]): Question[][][] {
	const blocks = groupBy(units, ([{ stimulus, id }]) => (stimulus ? `of ${stimulus.id}` : `alone ${id}`));
	return [...blocks.values()];
}

function toFormQuestion(question: Question, part: string, order: OrderRules, random: RandomGenerator): FormQuestion {
	if (question.kind === 'calculated') {
		const drawn = draw(question, (most) => uniformInt(0, most, random));
		return { ...toFormQuestion(worded(question, drawn), part, order, random), drawn };
	}
	const { id, kind, stem, points, picture, inOther, hint, media, stimulus, isExtra, calculator } = question;
	const shown: FormQuestion = { id, part, kind, stem, points };
	if (picture) shown.picture = picture;
	if (inOther) shown.inOther = inOther;
	if (hint) shown.hint = hint;
	if (media) shown.media = media;
	if (stimulus) shown.stimulus = stimulus;
	if (isExtra) shown.isExtra = isExtra;
	if (calculator) shown.calculator = calculator;
	switch (question.kind) {
		case 'numeric':
			if (question.unit) shown.unit = question.unit;
			break;
		case 'single':
		case 'multiple':
			shown.choices = (order.choicesInOwnOrder ? shuffledAroundPins(question.choices, random) : question.choices).map(
				bare
			);
			break;
		// How these stand is the question itself: in the order in which they were written they might give it away.
		case 'ordering':
			shown.choices = shuffled(question.choices, random).map(bare);
			break;
		case 'matching':
			shown.items = question.items.map(bare);
			shown.matches = shuffled(question.matches, random).map(bare);
			break;
		case 'fill_in':
			shown.gaps = question.gaps.map((gap) => gap.id);
			break;
		case 'essay':
			if (question.words) shown.words = question.words;
			break;
		case 'upload':
			shown.most = question.most;
	}
	return shown;
}

/** A choice without what the candidate must not know of it. */
function bare({ id, text }: Choice): { id: string; text: string } {
	return { id, text };
}

/** Fisher and Yates, by Durstenfeld. */
function shuffled<T>(items: T[], random: RandomGenerator): T[] {
	const result = [...items];
	for (let i = result.length - 1; i > 0; i--) {
		const j = uniformInt(0, i, random);
		[result[i], result[j]] = [result[j], result[i]];
	}
	return result;
}

function shuffledAroundPins(choices: Choice[], random: RandomGenerator): Choice[] {
	const free = shuffled(
		choices.filter((choice) => !keepsPlace(choice)),
		random
	);
	return choices.map((choice) => (keepsPlace(choice) ? choice : free.shift()!));
}

/** "All of the above", "none of these"; not "an all-round light above a white one". */
const POINTS_AT_OTHERS =
	/\b(?:all|none|any|both|neither|either|some)\s+(?:of\s+)?(?:the\s+)?(?:(?:answers?|choices?|statements?)\s+)?(?:above|these|them)\b/i;
/** "Both A and B", "A or C". */
const NAMES_LETTERS = /\b[A-F]\b\s*(?:,|&|\band\b|\bor\b)\s*\b[A-F]\b/;

/** Whether a choice must stay where it stands, because it says so or because its words point at others. */
export function keepsPlace(choice: Choice): boolean {
	return choice.pinned ?? (POINTS_AT_OTHERS.test(choice.text) || NAMES_LETTERS.test(choice.text));
}
