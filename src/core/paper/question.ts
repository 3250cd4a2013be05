/** A choice of a single-choice question. */
export type Choice = {
	id: string;
	text: string;
	/** Points at other choices ("all of the above"), so it keeps its place when choices are shuffled. */
	pinned?: boolean;
};

export type Tolerance = { kind: 'absolute' | 'relative'; amount: number };

type Shared = { id: string; stem: string; points: number; topic: string };

/** A question with its key. Never sent to a candidate: they get a `FormQuestion`. */
export type Question = Shared &
	(
		| { kind: 'true_false'; answer: boolean }
		| { kind: 'single'; choices: Choice[]; answer: string }
		| { kind: 'numeric'; answer: number; tolerance: Tolerance; unit: string }
	);

/** A part of a paper: all its questions, or `draw` of them dealt to each candidate. */
export type Part = { title: string; questions: Question[]; draw: number | null };

/** What is sat, as one frozen version. */
export type Paper = { title: string; parts: Part[] };

/** A question as a candidate sees it: no key, choices in their own order. */
export type FormQuestion = {
	id: string;
	part: string;
	kind: Question['kind'];
	stem: string;
	points: number;
	choices?: { id: string; text: string }[];
	unit?: string;
};

/** The paper as dealt to one candidate. Stored when dealt. */
export type Form = { seed: number; questions: FormQuestion[] };

/** What a candidate gave: a boolean, a choice's id, or a number as typed. null: blank, or cleared again. */
export type AnswerValue = boolean | string | null;

/** How many questions each candidate is dealt. */
export function dealtCount(paper: Paper): number {
	return paper.parts.reduce((sum, part) => sum + (part.draw ?? part.questions.length), 0);
}

/** Points each candidate can reach; a part that draws has questions of equal points. */
export function dealtPoints(paper: Paper): number {
	return paper.parts.reduce((sum, part) => {
		if (part.draw !== null) return sum + part.draw * (part.questions[0]?.points ?? 0);
		return sum + part.questions.reduce((points, question) => points + question.points, 0);
	}, 0);
}
