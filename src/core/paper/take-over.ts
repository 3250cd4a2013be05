import { aboutPart, type OneEdit, type PaperEdit } from './edit';
import type { Paper } from './question';
import type { ReadQuestion } from './read-text';

/**
 * The one change that puts questions from elsewhere into a paper, so that one undo takes all of them back.
 * @param at the part that they go to, from 0; those under a heading go to the part of that name, which is made
 * @param asParts whether headings make parts; else all go to one
 */
export function takeOver(paper: Paper, questions: ReadQuestion[], at: number, asParts: boolean): PaperEdit {
	const parts = paper.parts.map(({ title, questions: there }) => ({ title, count: there.length }));
	const edits: OneEdit[] = [];
	const placeOf = (heading: string | undefined): number => {
		const known = parts.findIndex(({ title }) => title === heading);
		if (known >= 0) return known;
		const empty = parts[at];
		// The part that an empty paper begins with takes the first heading's name.
		if (empty?.title === '' && empty.count === 0) {
			const before = aboutPart(paper.parts[at] ?? { title: '', draw: null });
			edits.push({ kind: 'part', index: at, before, after: { ...before, title: heading! } });
			empty.title = heading!;
			return at;
		}
		edits.push({ kind: 'add_part', index: parts.length, part: { title: heading!, questions: [], draw: null } });
		return parts.push({ title: heading!, count: 0 }) - 1;
	};
	if (parts.length === 0) {
		edits.push({ kind: 'add_part', index: 0, part: { title: '', questions: [], draw: null } });
		parts.push({ title: '', count: 0 });
	}
	for (const { question, part } of questions) {
		const place = asParts && part !== undefined ? placeOf(part) : Math.max(0, Math.min(at, parts.length - 1));
		edits.push({ kind: 'question', before: null, after: question, at: { part: place, index: parts[place].count++ } });
	}
	return { kind: 'several', edits };
}
