import { keyInWords } from './key-in-words';
import { formsOf } from './paper-forms';
import type { Paper, Part, Question } from './question';
import { isSame } from './same';

/** What became of one question from one version to another. */
export type QuestionChange = {
	id: string;
	what: 'added' | 'removed' | 'changed' | 'moved';
	before: Question | null;
	after: Question | null;
	/** In words: `points 1 → 2`, `key red → green`. */
	details: string[];
};
export type PaperChanges = {
	/** What concerns the paper and its parts: `Part B is new`, `A deals 5 instead of all`. */
	about: string[];
	questions: QuestionChange[];
};

/** What differs between two versions of a paper, question by question, in the order of the later one. */
export function comparePapers(before: Paper, after: Paper): PaperChanges {
	const old = questionsOf(before);
	const now = questionsOf(after);
	const questions: QuestionChange[] = [];
	for (const [id, { question, part }] of now) {
		const was = old.get(id);
		if (!was) questions.push({ id, what: 'added', before: null, after: question, details: [] });
		else if (!isSame(was.question, question))
			questions.push({
				id,
				what: 'changed',
				before: was.question,
				after: question,
				details: differences(was.question, question)
			});
		else if (was.part !== part)
			questions.push({
				id,
				what: 'moved',
				before: question,
				after: question,
				details: [`from ${was.part || 'an untitled part'} to ${part || 'an untitled part'}`]
			});
	}
	for (const [id, { question }] of old)
		if (!now.has(id)) questions.push({ id, what: 'removed', before: question, after: null, details: [] });
	return { about: aboutChanges(before, after), questions };
}

function questionsOf(paper: Paper): Map<string, { question: Question; part: string }> {
	return new Map(
		paper.parts.flatMap(({ title, questions }) =>
			questions.map((question) => [question.id, { question, part: title }] as const)
		)
	);
}

function differences(before: Question, after: Question): string[] {
	const told: string[] = [];
	const tell = (what: string, was: string, is: string) => {
		if (was !== is) told.push(`${what} ${was || 'none'} → ${is || 'none'}`);
	};
	if (before.stem !== after.stem) told.push('text');
	tell('kind', before.kind, after.kind);
	tell('key', keyInWords(before), keyInWords(after));
	tell('points', String(before.points), String(after.points));
	tell('topic', before.topic, after.topic);
	const choices = (question: Question) => ('choices' in question ? question.choices.map(({ text }) => text) : []);
	if (!isSame(choices(before), choices(after))) told.push('choices');
	if (!isSame(before.inOther, after.inOther)) told.push('other languages');
	if (before.picture !== after.picture || !isSame(before.media, after.media)) told.push('pictures and sound');
	if (!isSame(before.stimulus, after.stimulus)) told.push('shared text');
	if (before.follows !== after.follows) told.push('what it goes with');
	if (before.calculator !== after.calculator) told.push('the calculator beside it');
	if (before.isExtra !== after.isExtra) told.push(after.isExtra ? 'points on top' : 'points count');
	return told.length > 0 ? told : ['details'];
}

function aboutChanges(before: Paper, after: Paper): string[] {
	const told: string[] = [];
	if (before.title !== after.title) told.push(`Title: ${before.title} → ${after.title}`);
	if (before.instructions !== after.instructions) told.push('The instructions before beginning have changed.');
	if (before.script !== after.script) told.push('The script has changed.');
	if (!isSame(before.formulaSheet ?? [], after.formulaSheet ?? [])) told.push('The formula sheet has changed.');
	if (!isSame(idsByForm(before), idsByForm(after))) told.push(formsChange(before, after));
	if (!isSame(before.material ?? [], after.material ?? [])) told.push('The material beside it has changed.');
	const dealt = ({ draw, strata }: Part) =>
		draw === null
			? 'all'
			: strata
				? Object.entries(strata)
						.map(([difficulty, count]) => `${count} ${difficulty}`)
						.join(', ')
				: String(draw);
	after.parts.forEach((part, i) => {
		const name = part.title || `Part ${i + 1}`;
		const was = before.parts.find(({ title }) => title === part.title) ?? before.parts[i];
		if (!was) told.push(`${name} is new.`);
		else {
			if (was.title !== part.title) told.push(`${was.title || `Part ${i + 1}`} is called ${name} now.`);
			if (dealt(was) !== dealt(part)) told.push(`${name} deals ${dealt(part)} instead of ${dealt(was)}.`);
		}
	});
	for (const part of before.parts.slice(after.parts.length))
		if (!after.parts.some(({ title }) => title === part.title)) told.push(`${part.title || 'A part'} is gone.`);
	return told;
}

const idsByForm = (paper: Paper) => formsOf(paper).map(({ questions }) => questions.map(({ id }) => id));

function formsChange(before: Paper, after: Paper): string {
	const [were, are] = [before.forms?.length ?? 0, after.forms?.length ?? 0];
	if (were === are) return 'Its forms have other questions.';
	if (are === 0) return 'It has no forms any more.';
	return `It has ${are} forms${were === 0 ? '' : ` instead of ${were}`}.`;
}
