import { isSame } from './same';
import type { Stimulus } from './medium';
import { questionsOf, type Paper, type Part, type Question } from './question';

/** Where a question stands: its part and its place in it, both from 0. */
export type Spot = { part: number; index: number };

/** What of a paper is about all of it. */
export type PaperAbout = Pick<
	Paper,
	| 'title'
	| 'language'
	| 'formulaSheet'
	| 'script'
	| 'plan'
	| 'card'
	| 'practice'
	| 'instructions'
	| 'forms'
	| 'material'
>;
/** What of a part is about all of it. */
export type PartAbout = Pick<Part, 'title' | 'draw' | 'strata'>;

/**
 * One change of a paper that is being written. `before` is what whoever changes it had before their eyes, so that two who
 * write at once are told and not overwritten; null: it is new.
 */
export type PaperEdit =
	| OneEdit
	/** Changes that belong together, as of an import: all of them or none, and undone in one. */
	| { kind: 'several'; edits: OneEdit[] };

export type OneEdit =
	| { kind: 'about'; before: PaperAbout; after: PaperAbout }
	| { kind: 'question'; before: Question | null; after: Question; at: Spot }
	| { kind: 'remove_question'; before: Question }
	| { kind: 'move_question'; id: string; to: Spot }
	/** What stands before several questions, in all of them at once. */
	| { kind: 'stimulus'; before: Stimulus; after: Stimulus }
	| { kind: 'part'; index: number; before: PartAbout; after: PartAbout }
	| { kind: 'add_part'; index: number; part: Part }
	| { kind: 'remove_part'; index: number; before: PartAbout }
	| { kind: 'move_part'; title: string; from: number; to: number };

export type Edited =
	/** `undo` takes the change back. */
	| { outcome: 'done'; paper: Paper; undo: PaperEdit }
	/** Somebody else has changed it since; `theirs` is how the question is now. */
	| { outcome: 'changed_since'; theirs: Question | null }
	/** It is not there any more. */
	| { outcome: 'gone' };

/** Applies a change; the paper that is given stays as it is. */
export function editPaper(paper: Paper, edit: PaperEdit): Edited {
	if (edit.kind === 'several') {
		const undo: OneEdit[] = [];
		let now = paper;
		for (const one of edit.edits) {
			const edited = editPaper(now, one);
			if (edited.outcome !== 'done') return edited;
			now = edited.paper;
			undo.unshift(edited.undo as OneEdit);
		}
		return done(now, { kind: 'several', edits: undo });
	}
	switch (edit.kind) {
		case 'about': {
			if (!isSame(aboutOf(paper), edit.before)) return changed();
			return done({ ...paper, ...edit.after }, { kind: 'about', before: edit.after, after: edit.before });
		}
		case 'question':
			return edit.before === null ? add(paper, edit.after, edit.at) : replace(paper, edit.before, edit.after, edit.at);
		case 'remove_question': {
			const at = spotOf(paper, edit.before.id);
			if (!at) return { outcome: 'gone' };
			const now = paper.parts[at.part].questions[at.index];
			if (!isSame(now, edit.before)) return changed(now);
			return done(takeOut(paper, at), { kind: 'question', before: null, after: now, at });
		}
		case 'move_question': {
			const at = spotOf(paper, edit.id);
			if (!at || !paper.parts[edit.to.part]) return { outcome: 'gone' };
			const question = paper.parts[at.part].questions[at.index];
			return done(put(takeOut(paper, at), question, edit.to), { kind: 'move_question', id: edit.id, to: at });
		}
		case 'stimulus': {
			const { id } = edit.before;
			const having = questionsOf(paper).filter(({ stimulus }) => stimulus?.id === id);
			if (having.length === 0 || edit.after.id !== id) return { outcome: 'gone' };
			const other = having.find(({ stimulus }) => !isSame(stimulus, edit.before));
			if (other) return changed(other);
			const parts = paper.parts.map((part) => ({
				...part,
				questions: part.questions.map((one) => (having.includes(one) ? { ...one, stimulus: edit.after } : one))
			}));
			return done({ ...paper, parts }, { kind: 'stimulus', before: edit.after, after: edit.before });
		}
		case 'part': {
			const part = paper.parts[edit.index];
			if (!part) return { outcome: 'gone' };
			if (!isSamePart(part, edit.before)) return changed();
			return done(
				withPart(paper, edit.index, ({ questions }) => ({ ...edit.after, questions })),
				{ ...edit, before: edit.after, after: edit.before }
			);
		}
		case 'add_part': {
			return done(
				{ ...paper, parts: paper.parts.toSpliced(edit.index, 0, edit.part) },
				{ kind: 'remove_part', index: Math.min(edit.index, paper.parts.length), before: aboutPart(edit.part) }
			);
		}
		case 'remove_part': {
			const part = paper.parts[edit.index];
			if (!part) return { outcome: 'gone' };
			if (!isSamePart(part, edit.before)) return changed();
			return done(
				{ ...paper, parts: paper.parts.toSpliced(edit.index, 1) },
				{ kind: 'add_part', index: edit.index, part }
			);
		}
		case 'move_part': {
			const part = paper.parts[edit.from];
			if (!part || edit.to < 0 || edit.to >= paper.parts.length) return { outcome: 'gone' };
			if (part.title !== edit.title) return changed();
			const parts = paper.parts.toSpliced(edit.from, 1).toSpliced(edit.to, 0, part);
			return done({ ...paper, parts }, { ...edit, from: edit.to, to: edit.from });
		}
	}
}

/** What of a paper is about all of it, as it is now. */
export function aboutOf(paper: Paper): PaperAbout {
	const { title, language, formulaSheet, script, plan, card, practice, instructions, forms, material } = paper;
	return { title, language, formulaSheet, script, plan, card, practice, instructions, forms, material };
}

/** Whether a change is in the paper already: its answer was lost, and it is sent again. */
export function isEdited(paper: Paper, edit: PaperEdit): boolean {
	switch (edit.kind) {
		case 'several':
			// A part that was added has its questions by now: those tell.
			return edit.edits.every((one) => one.kind === 'add_part' || isEdited(paper, one));
		case 'about':
			return Object.entries(edit.after).every(([name, value]) => isSame(paper[name as keyof PaperAbout], value));
		case 'question': {
			const at = spotOf(paper, edit.after.id);
			return at !== null && isSame(paper.parts[at.part].questions[at.index], edit.after);
		}
		case 'remove_question':
			return spotOf(paper, edit.before.id) === null;
		case 'move_question':
			return isSame(spotOf(paper, edit.id), edit.to);
		case 'stimulus': {
			const having = questionsOf(paper).filter(({ stimulus }) => stimulus?.id === edit.after.id);
			return having.length > 0 && having.every(({ stimulus }) => isSame(stimulus, edit.after));
		}
		case 'part':
			return paper.parts[edit.index] !== undefined && isSamePart(paper.parts[edit.index], edit.after);
		case 'add_part':
			return paper.parts[edit.index] !== undefined && isSame(paper.parts[edit.index], edit.part);
		case 'remove_part':
			return !paper.parts.some((part) => isSamePart(part, edit.before));
		case 'move_part':
			return paper.parts[edit.to]?.title === edit.title;
	}
}

function done(paper: Paper, undo: PaperEdit): Edited {
	return { outcome: 'done', paper, undo };
}
function changed(theirs: Question | null = null): Edited {
	return { outcome: 'changed_since', theirs };
}
const isSamePart = (part: Part, before: PartAbout) => isSame(aboutPart(part), aboutPart(before));

/** What of a part is about all of it, as it is now. */
export function aboutPart({ title, draw, strata }: PartAbout): PartAbout {
	return { title, draw, ...(strata ? { strata } : {}) };
}

/** Where the question of that id stands; null: nowhere. */
export function spotOf(paper: Paper, id: string): Spot | null {
	for (const [part, { questions }] of paper.parts.entries()) {
		const index = questions.findIndex((question) => question.id === id);
		if (index >= 0) return { part, index };
	}
	return null;
}

/** What a part is called for short: A, B, … and by numbers after Z. */
export function partLetter(index: number): string {
	return index < 26 ? String.fromCharCode('A'.charCodeAt(0) + index) : `${index + 1}.`;
}

/** What a question is called for short: `B2` is the second of the second part. Empty: it is not there. */
export function nameInPaper(paper: Paper, id: string): string {
	const spot = spotOf(paper, id);
	return spot ? `${partLetter(spot.part)}${spot.index + 1}` : '';
}

function add(paper: Paper, question: Question, at: Spot): Edited {
	if (!paper.parts[at.part]) return { outcome: 'gone' };
	const there = spotOf(paper, question.id);
	if (there) return changed(paper.parts[there.part].questions[there.index]);
	return done(put(paper, question, at), { kind: 'remove_question', before: question });
}

function replace(paper: Paper, before: Question, after: Question, at: Spot): Edited {
	const there = spotOf(paper, before.id);
	if (!there || after.id !== before.id) return { outcome: 'gone' };
	const now = paper.parts[there.part].questions[there.index];
	if (!isSame(now, before)) return changed(now);
	return done(
		withPart(paper, there.part, (part) => ({ ...part, questions: part.questions.with(there.index, after) })),
		{ kind: 'question', before: after, after: before, at }
	);
}

function put(paper: Paper, question: Question, { part, index }: Spot): Paper {
	return withPart(paper, part, (one) => ({ ...one, questions: one.questions.toSpliced(index, 0, question) }));
}

function takeOut(paper: Paper, { part, index }: Spot): Paper {
	return withPart(paper, part, (one) => ({ ...one, questions: one.questions.toSpliced(index, 1) }));
}

function withPart(paper: Paper, index: number, change: (part: Part) => Part): Paper {
	return { ...paper, parts: paper.parts.with(index, change(paper.parts[index])) };
}
