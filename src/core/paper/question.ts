import type { Lesser } from './calculator-allowed';
import type { Difficulty } from './difficulty';
import { mediaBeside, type Medium, type Stimulus } from './medium';
import { formsOf, type FormLetter, type PaperForm } from './paper-forms';
import { poolsOf } from './pools';

/** A choice of a question. Choices stand for themselves in matching and ordering, too. */
export type Choice = {
	id: string;
	/** As a stem: plain words, with formulas between dollar signs. */
	text: string;
	/** Points at other choices ("all of the above"), so it keeps its place when choices are shuffled. */
	pinned?: boolean;
};

export type Tolerance = { kind: 'absolute' | 'relative'; amount: number };

/** A number that is drawn: one of a list, or from a range by steps, both ends included. Stems name it in braces: `{high}`. */
export type Parameter = { name: string } & ({ values: number[] } | { from: number; to: number; step: number });

/** What a question says in another language, by the ids of what it says. What is missing stays in the paper's own. */
export type Wording = { stem: string; texts?: Record<string, string> };

type Shared = {
	id: string;
	/** Plain words; formulas in TeX between dollar signs. Never HTML. */
	stem: string;
	points: number;
	/** A path in the tree of topics: `Navigation / Tides`. */
	topic: string;
	/** What its author expects; none is said of a question without. */
	difficulty?: Difficulty;
	/** How long its author expects it to take; else its kind’s usual time counts. */
	seconds?: number;
	tags?: string[];
	/** Where it comes from. */
	source?: string;
	/** For authors alone. */
	note?: string;
	/** The name of one of the paper's pictures. */
	picture?: string;
	/** By language tag: `pt`. */
	inOther?: Record<string, Wording>;
	/** Shown or played below the stem, in this order. */
	media?: Medium[];
	/** What it shares with the questions beside it that name the same one. */
	stimulus?: Stimulus;
	/** The id of a question that it goes with: dealt with that one and right behind it, as a step of it or its working. */
	follows?: string;
	hint?: string;
	/** How this one may be tried in practice; else as its paper says. */
	practice?: TryRules;
	/** What candidates read afterwards beside the right answers, if theirs was right and if it was wrong. */
	feedback?: { right?: string; wrong?: string };
	/** Its points count on top: they are not among those that there are to reach. */
	isExtra?: boolean;
	/** No more than this calculator, whatever the session gives; else the session's. */
	calculator?: Lesser;
};

/** A question with its key. Never sent to a candidate: they get a `FormQuestion`. */
export type Question = Shared &
	(
		| { kind: 'true_false'; answer: boolean }
		| { kind: 'single'; choices: Choice[]; answer: string }
		/** Several are right. `partial`: part of the points for part of them. */
		| { kind: 'multiple'; choices: Choice[]; answer: string[]; partial: boolean }
		/** Each item gets one of the matches; there may be more matches than items. */
		| { kind: 'matching'; items: Choice[]; matches: Choice[]; answer: Record<string, string>; partial: boolean }
		/** `answer`: the choices' ids in the right order. */
		| { kind: 'ordering'; choices: Choice[]; answer: string[]; partial: boolean }
		/** The stem has a gap `[id]` for each; `accepted` are spellings, compared without case and accents. */
		| { kind: 'fill_in'; gaps: { id: string; accepted: string[] }[]; partial: boolean }
		| { kind: 'short'; accepted: string[] }
		/** `unsimplified`: per cent of the points for a right fraction that is not reduced; all of them without. */
		| { kind: 'numeric'; answer: number; tolerance: Tolerance; unit: string; unsimplified?: number }
		/** Numbers are drawn for each candidate, and the answer is reckoned from them: dealt, it is a numeric question. */
		| {
				kind: 'calculated';
				parameters: Parameter[];
				/** What the drawn numbers must fulfil together: `high > low`. */
				conditions: string[];
				formula: string;
				tolerance: Tolerance;
				unit: string;
				unsimplified?: number;
		  }
		/** Marked by hand. The words are advice to the candidate, not a limit. */
		| { kind: 'essay'; words: { from: number; to: number } | null }
		/** Photos or PDFs of working on paper; marked by hand. */
		| { kind: 'upload'; most: number }
	);

export type QuestionKind = Question['kind'];

/** A part of a paper: all its questions, or `draw` of them dealt to each candidate. */
export type Part = {
	title: string;
	questions: Question[];
	draw: number | null;
	/** How many of each difficulty make up what is dealt; then `draw` is their sum. */
	strata?: Partial<Record<Difficulty, number>>;
};

/** A drawing that goes with the paper, as the text of an SVG file. `alt` tells it to whoever does not see it. */
export type Picture = { svg: string; alt: string };

/** A document that candidates may open beside the paper: a table, a chart, a text; its pages are pictures, in their order. */
export type Material = { name: string; pages: Medium[] };
export const MOST_DOCUMENTS = 10;
export const MOST_PAGES = 60;

/** What tells a paper from those that look like it; for authors and coordinators. */
export type PaperCard = {
	subject?: string;
	level?: string;
	programme?: string;
	year?: string;
	description?: string;
};

/** What is sat, as one frozen version. */
export type Paper = {
	title: string;
	parts: Part[];
	/** Without: everybody is dealt from all of it. With: each gets all questions of one of these, and parts draw nothing. */
	forms?: PaperForm[];
	pictures?: Record<string, Picture>;
	/** The paper's own language; `en` where nothing is said. */
	language?: string;
	/** Formulas beside the paper, each with a name; TeX between dollar signs. */
	formulaSheet?: string[];
	/** What lies beside the paper from the first question to the last. */
	material?: Material[];
	/** What its author wants to be in it; it binds nobody. */
	plan?: { topic: string; difficulty: Difficulty | null; count: number }[];
	card?: PaperCard;
	/** What candidates read before they begin. */
	instructions?: string;
	/** Anyone may try it at any time, with the right answers: it is for practice, and never counts. */
	practice?: PracticeRules;
	/** What the proctor reads aloud before the start; a general text where the author has written none. */
	script?: string;
};

/** How often a question may be tried in practice, and what each wrong try costs of its points, in per cent. */
export type TryRules = { tries: number; costPercent: number };

/** When a hint is there: for the asking, or once a try was wrong. */
export const HINT_TIMES = ['asked', 'after_wrong', 'never'] as const;

/** How a practice paper is tried. Hints are there for the asking where nothing is said. */
export type PracticeRules = TryRules & { hints?: (typeof HINT_TIMES)[number] };

/** A question as a candidate sees it: no key, choices in their own order. */
export type FormQuestion = {
	id: string;
	part: string;
	kind: Exclude<QuestionKind, 'calculated'>;
	stem: string;
	points: number;
	/** Of single, multiple and ordering. */
	choices?: { id: string; text: string }[];
	/** Of matching: what is to be matched, and with what. */
	items?: { id: string; text: string }[];
	matches?: { id: string; text: string }[];
	/** Of fill in: the ids of the gaps. */
	gaps?: string[];
	unit?: string;
	words?: { from: number; to: number };
	/** Of calculated: the numbers that were drawn. They stay with the form and do not leave the server by name. */
	drawn?: Record<string, number>;
	picture?: string;
	inOther?: Record<string, Wording>;
	media?: Medium[];
	stimulus?: Stimulus;
	/** It goes with the question before it. */
	isStep?: true;
	hint?: string;
	isExtra?: boolean;
	calculator?: Lesser;
	/** Of upload: how many files it takes. */
	most?: number;
};

/** The paper as dealt to one candidate. Stored when dealt. */
export type Form = {
	seed: number;
	/** Which of the paper's forms it is, where it has some. */
	name?: FormLetter;
	questions: FormQuestion[];
};

/** All questions of a paper, part after part. */
export function questionsOf({ parts }: Pick<Paper, 'parts'>): Question[] {
	return parts.flatMap(({ questions }) => questions);
}

/** The pages of all that lies beside a paper. */
export function materialPages({ material = [] }: Pick<Paper, 'material'>): Medium[] {
	return material.flatMap(({ pages }) => pages);
}

/** All that a paper shows and plays, shared texts and material included; what two name is there twice. */
export function mediaOf(paper: Pick<Paper, 'parts' | 'material'>): Medium[] {
	return [...questionsOf(paper).flatMap(mediaBeside), ...materialPages(paper)];
}

/** Whether only a person can mark it. */
export function isMarkedByHand<T extends { kind: QuestionKind }>(
	question: T
): question is T & { kind: 'essay' | 'upload' } {
	return question.kind === 'essay' || question.kind === 'upload';
}

/** How many questions each candidate is dealt. */
export function dealtCount(paper: Paper): number {
	const [form] = formsOf(paper);
	if (form) return form.questions.length;
	return paper.parts.reduce((sum, part) => {
		if (part.draw === null) return sum + part.questions.length;
		return poolsOf(part).reduce(
			(count, { draw, units: [first = []] }) => count + draw * Math.max(1, first.length),
			sum
		);
	}, 0);
}

/** What a question adds to the points that there are to reach: nothing where it counts on top. */
export function pointsToReach({ points, isExtra }: Pick<Question, 'points' | 'isExtra'>): number {
	return isExtra ? 0 : points;
}

/** Points there are to reach with these questions. */
export function sumOfPoints(questions: Pick<Question, 'points' | 'isExtra'>[]): number {
	return questions.reduce((points, question) => points + pointsToReach(question), 0);
}

/** Points there are to reach; a pool has questions of equal points, and forms have equal sums. */
export function dealtPoints(paper: Paper): number {
	const [form] = formsOf(paper);
	if (form) return sumOfPoints(form.questions);
	return paper.parts.reduce((sum, part) => {
		if (part.draw === null) return sum + sumOfPoints(part.questions);
		return poolsOf(part).reduce((points, { draw, units: [first = []] }) => points + draw * sumOfPoints(first), sum);
	}, 0);
}
