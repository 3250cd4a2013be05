import { counted } from '../names';
import { guessColumns, writeInline, type Inline, type Mark } from '../paper';
import { Numbering } from './numbering';
import { texOfOfficeMath } from './office-math';
import { below, child, childrenOf, elementsOf, valueOf, type Element } from './xml';

/** A document as text, in the form in which questions are read, with what of it is not in the text or was changed. */
export type WordDocument = { text: string; told: string[] };

/** Stands where a picture stood. */
const PICTURE = '(a picture stood here)';

/**
 * The text of a word processor's document (WordprocessingML, ECMA-376 part 1, 17): numbers and letters as they are
 * printed, headings as `# so`, what is bold as `**so**`, formulas as TeX, tables of questions as questions.
 * @param files the parts of the document by their paths
 * @throws Error when it holds no document, or a part is no XML
 */
export function readWordDocument(files: ReadonlyMap<string, string>): WordDocument {
	const main = mainPart(files);
	const folder = main.slice(0, main.lastIndexOf('/') + 1);
	const part = (name: string) => {
		const text = files.get(`${folder}${name}`);
		return text === undefined ? [] : elementsOf(text);
	};
	const body = below(elementsOf(files.get(main)!), 'w:body')[0];
	if (!body) throw new Error('no body');
	const styles = below(part('styles.xml'), 'w:styles')[0];
	return new Reader(
		new Numbering(below(part('numbering.xml'), 'w:numbering')[0], styles),
		headingsOf(styles),
		looksOf(styles),
		notesOf([...part('footnotes.xml'), ...part('endnotes.xml')])
	).read(body);
}

/** Where the document itself is, as the package says. */
function mainPart(files: ReadonlyMap<string, string>): string {
	const named = below(elementsOf(files.get('_rels/.rels') ?? ''), 'Relationship').find(({ attributes }) =>
		attributes.Type?.endsWith('/officeDocument')
	)?.attributes.Target;
	const path = (named ?? 'word/document.xml').replace(/^\//, '');
	if (!files.has(path)) throw new Error('no document');
	return path;
}

/** The styles that are headings: by their name, or by their level in an outline. */
function headingsOf(styles: Element | undefined): Set<string> {
	return new Set(
		childrenOf(styles, 'w:style').flatMap((style) => {
			const name = valueOf(style, 'w:name') ?? '';
			const isHeading =
				/^(heading|title|subtitle)\b/i.test(name) || valueOf(child(style, 'w:pPr'), 'w:outlineLvl') !== undefined;
			return isHeading ? [style.attributes['w:styleId'] ?? ''] : [];
		})
	);
}

/** How styles of letters look. */
function looksOf(styles: Element | undefined): Map<string, Element[]> {
	return new Map(
		childrenOf(styles, 'w:style')
			.filter(({ attributes }) => attributes['w:type'] === 'character')
			.map((style) => [style.attributes['w:styleId'] ?? '', child(style, 'w:rPr')?.children ?? []])
	);
}

function notesOf(parts: Element[]): Map<string, Element> {
	return new Map(
		['w:footnote', 'w:endnote'].flatMap((name) =>
			below(parts, name)
				.filter(({ attributes }) => attributes['w:type'] === undefined)
				.map((note): [string, Element] => [`${name} ${note.attributes['w:id']}`, note])
		)
	);
}

/** Words of a paragraph with how they look; `isMarked`: underlined or highlighted. */
type Run = Inline & { isMarked?: boolean };

class Reader {
	#lines: string[] = [];
	#letters = 0;
	#hidden: string[] = [];
	#counts = { pictures: 0, changes: 0, comments: 0, boxes: 0, formulas: 0, broken: 0, notes: 0 };

	constructor(
		private numbering: Numbering,
		private headings: Set<string>,
		private styles: Map<string, Element[]>,
		private notes: Map<string, Element>
	) {}

	read(body: Element): WordDocument {
		this.#blocks(body.children);
		return {
			text: this.#lines
				.join('\n')
				.replace(/\n{3,}/g, '\n\n')
				.trim(),
			told: this.#told()
		};
	}

	#told(): string[] {
		const { pictures, changes, comments, boxes, broken, notes } = this.#counts;
		const told: string[] = [];
		if (pictures > 0)
			told.push(`${counted(pictures, 'picture is', 'pictures are')} left out; “${PICTURE}” marks where.`);
		if (broken > 0)
			told.push(
				`${counted(broken, 'formula has', 'formulas have')} signs that can’t be read: compare with the document.`
			);
		if (this.#hidden.length > 0)
			told.push(`Hidden text is left out: ${this.#hidden.map((text) => `“${text.slice(0, 80)}”`).join(', ')}.`);
		if (changes > 0) told.push(`${counted(changes, 'tracked change is', 'tracked changes are')} taken as accepted.`);
		if (comments > 0) told.push(`${counted(comments, 'comment is', 'comments are')} left out.`);
		if (boxes > 0)
			told.push(`${counted(boxes, 'text box stands', 'text boxes stand')} where it is anchored: look at the order.`);
		if (notes > 0) told.push(`${counted(notes, 'note stands', 'notes stand')} in brackets where it was referred to.`);
		return told;
	}

	#blocks(elements: Element[]): void {
		for (const one of elements) {
			if (one.name === 'w:p') this.#paragraph(one);
			else if (one.name === 'w:tbl') this.#table(one);
			else if (one.name === 'w:sdt') this.#blocks(child(one, 'w:sdtContent')?.children ?? []);
			else if (['w:ins', 'w:moveTo', 'w:customXml', 'w:smartTag'].includes(one.name)) this.#blocks(one.children);
		}
	}

	#paragraph(paragraph: Element): void {
		const properties = child(paragraph, 'w:pPr');
		const label = this.numbering.label(properties);
		const runs = this.#runs(paragraph.children);
		const isEmpty = runs.every((run) => run.kind === 'words' && run.text.trim() === '');
		if (isEmpty) {
			this.#lines.push('');
			return;
		}
		if (this.#isHeading(properties) && label?.kind !== 'letter') {
			this.#letters = 0;
			this.#lines.push('', `# ${withoutMarks(runs).replace(/\s*\n\s*/g, ' ')}`);
			return;
		}
		if (label?.kind === 'number') {
			this.#letters = 0;
			this.#lines.push('', `${label.value}. ${lineOf(isAll(runs, 'strong') ? unbold(runs) : runs)}`);
			return;
		}
		const isChoice = label !== null && (label.kind === 'letter' || this.#lines.length > 0);
		if (!isChoice) this.#letters = 0;
		const isSet = isAll(runs, 'strong') || (isChoiceLike(runs, isChoice) && runs.every(isMarkedOrBlank));
		const text = lineOf(isSet ? unbold(runs) : runs);
		const marked = isSet ? `**${text}**` : text;
		if (!isChoice) this.#lines.push(marked);
		else this.#lines.push(`${letterAt(this.#letters++)}) ${marked}`);
	}

	#isHeading(properties: Element | undefined): boolean {
		return (
			this.headings.has(valueOf(properties, 'w:pStyle') ?? '') || valueOf(properties, 'w:outlineLvl') !== undefined
		);
	}

	/** A table whose heading is that of questions becomes questions; any other stays a table of the question above it. */
	#table(table: Element): void {
		const rows = childrenOf(table, 'w:tr').map((row) => childrenOf(row, 'w:tc').map((cell) => this.#cell(cell)));
		if (rows.length === 0) return;
		const columns = guessColumns(rows[0]);
		const at = (column: string) => columns.flatMap((one, i) => (one === column ? [i] : []));
		if (rows.length > 1 && at('text').length === 1 && (at('choice').length > 1 || at('right').length === 1)) {
			const numbers = rows[0].findIndex((title) => /^(no|nr|n°|#|number)\.?$/i.test(title.trim()));
			for (const [i, row] of rows.slice(1).entries()) {
				const points = row[at('points')[0]] ?? '';
				this.#lines.push('', `${/^\d+$/.test(row[numbers] ?? '') ? row[numbers] : i + 1}. ${row[at('text')[0]] ?? ''}`);
				if (/^\d+([.,]\d+)?$/.test(points)) this.#lines[this.#lines.length - 1] += ` (${points} points)`;
				const choices = at('choice').flatMap((column) => (row[column] ? [row[column]] : []));
				for (const [k, choice] of choices.entries()) this.#lines.push(`${letterAt(k)}) ${choice}`);
				const right = row[at('right')[0]] ?? '';
				if (right !== '') this.#lines.push(`Answer: ${right}`);
			}
			return;
		}
		const isLettered = rows.flat().some((cell) => /^\(?[A-Ha-h][.)]\s/.test(cell));
		if (isLettered || rows[0].length === 1) for (const row of rows) this.#lines.push(row.filter(Boolean).join('\t'));
		else
			for (const [i, row] of rows.entries()) {
				this.#lines.push(`| ${row.map((cell) => cell.replace(/\|/g, '\\|')).join(' | ')} |`);
				if (i === 0) this.#lines.push(`|${row.map(() => '---').join('|')}|`);
			}
	}

	#cell(cell: Element): string {
		return below(cell.children, 'w:p')
			.map((paragraph) => lineOf(this.#runs(paragraph.children)).replace(/\s*\n\s*/g, ' '))
			.filter(Boolean)
			.join(' ');
	}

	#runs(elements: Element[]): Run[] {
		return elements.flatMap((one): Run[] => {
			switch (one.name) {
				case 'w:r':
					return this.#run(one);
				case 'm:oMath':
				case 'm:oMathPara': {
					const { tex, isWhole } = texOfOfficeMath(one);
					if (!isWhole) this.#counts.broken++;
					return tex === '' ? [] : [{ kind: 'formula', tex }];
				}
				case 'w:ins':
				case 'w:moveTo':
					this.#counts.changes++;
					return this.#runs(one.children);
				case 'w:del':
				case 'w:moveFrom':
					this.#counts.changes++;
					return [];
				case 'w:hyperlink':
				case 'w:smartTag':
				case 'w:fldSimple':
				case 'w:customXml':
				case 'w:dir':
				case 'w:bdo':
					return this.#runs(one.children);
				case 'w:sdt':
					return this.#runs(child(one, 'w:sdtContent')?.children ?? []);
				default:
					return [];
			}
		});
	}

	#run(run: Element): Run[] {
		const own = child(run, 'w:rPr');
		// What the letters say of themselves comes before what their style says.
		const styled = this.styles.get(valueOf(own, 'w:rStyle') ?? '') ?? [];
		const looks: Element = { name: 'w:rPr', attributes: {}, text: '', children: [...(own?.children ?? []), ...styled] };
		const marks: Mark[] = [];
		if (isOn(looks, 'w:b')) marks.push('strong');
		if (isOn(looks, 'w:i')) marks.push('emphasis');
		const raised = valueOf(looks, 'w:vertAlign');
		// Some programs lift letters by half-points, and make them smaller.
		const lifted = child(looks, 'w:sz') ? Number(valueOf(looks, 'w:position') ?? 0) : 0;
		if (raised === 'superscript' || (raised === undefined && lifted > 0)) marks.push('sup');
		if (raised === 'subscript' || (raised === undefined && lifted < 0)) marks.push('sub');
		const isMarked =
			!['none', undefined].includes(valueOf(looks, 'w:u')) ||
			!['none', undefined].includes(valueOf(looks, 'w:highlight'));
		const pieces: Run[] = [];
		let text = '';
		const end = () => {
			if (text !== '') pieces.push({ kind: 'words', text, marks, isMarked });
			text = '';
		};
		const look = (elements: Element[]): void => {
			for (const one of elements) {
				if (one.name === 'w:t') text += one.children.map((words) => words.text).join('');
				else if (one.name === 'w:tab') text += '\t';
				else if (one.name === 'w:br' || one.name === 'w:cr') text += one.attributes['w:type'] === 'page' ? '' : '\n';
				else if (one.name === 'w:noBreakHyphen') text += '‑';
				else if (one.name === 'w:footnoteReference' || one.name === 'w:endnoteReference') {
					const note = this.notes.get(`${one.name.replace('Reference', '')} ${one.attributes['w:id']}`);
					const words = note ? this.#cell(note).trim() : '';
					if (words !== '') this.#counts.notes++;
					text += words === '' ? '' : ` [${words}]`;
				} else if (one.name === 'w:commentReference') this.#counts.comments++;
				else if (one.name === 'mc:AlternateContent')
					look((child(one, 'mc:Choice') ?? child(one, 'mc:Fallback'))?.children ?? []);
				else if (['w:drawing', 'w:pict', 'w:object'].includes(one.name)) {
					const boxed = below(one.children, 'w:txbxContent')[0];
					if (boxed) {
						this.#counts.boxes++;
						text += `\n${this.#cell(boxed)}\n`;
					} else {
						this.#counts.pictures++;
						text += PICTURE;
					}
				}
			}
		};
		look(run.children);
		if (isOn(looks, 'w:vanish')) {
			if (text.trim() !== '') this.#hidden.push(text.trim());
			return [];
		}
		end();
		return pieces;
	}
}

/** The letter of a choice, by its place from 0. */
const letterAt = (place: number) => String.fromCharCode('a'.charCodeAt(0) + (place % 26));

/** Whether a property that is on or off is on: there, and not said to be off. */
function isOn(looks: Element | undefined, name: string): boolean {
	const value = valueOf(looks, name);
	return value !== undefined && !['0', 'false', 'off'].includes(value);
}

const isBlank = (run: Run) => run.kind === 'words' && run.text.trim() === '';
const isMarkedOrBlank = (run: Run) => run.isMarked === true || isBlank(run);

/** Whether all that is written has that look; formulas have none of their own. */
function isAll(runs: Run[], mark: Mark): boolean {
	const words = runs.filter((run) => run.kind === 'words' && !isBlank(run));
	return words.length > 0 && words.every((run) => run.kind === 'words' && run.marks.includes(mark));
}

function unbold(runs: Run[]): Run[] {
	return runs.map((run) =>
		run.kind === 'words' ? { ...run, marks: run.marks.filter((mark) => mark !== 'strong') } : run
	);
}

/** A choice by its numbering, or by a letter that was typed. */
function isChoiceLike(runs: Run[], isChoice: boolean): boolean {
	return isChoice || /^\s*\(?[A-Za-z][.)]\s/.test(withoutMarks(runs));
}

function withoutMarks(runs: Run[]): string {
	return runs
		.map((run) => (run.kind === 'words' ? run.text : run.kind === 'formula' ? `$${run.tex}$` : ''))
		.join('')
		.trim();
}

/**
 * A line as it is written with signs. Spaces at the edge of what is bold stand outside of it, where they mean the same;
 * neighbours that look alike are one.
 */
function lineOf(runs: Run[]): string {
	const pieces: Inline[] = [];
	const add = (text: string, marks: Mark[]) => {
		if (text === '') return;
		const last = pieces.at(-1);
		if (last?.kind === 'words' && String(last.marks) === String(marks)) last.text += text;
		else pieces.push({ kind: 'words', text, marks });
	};
	for (const run of runs) {
		if (run.kind !== 'words') {
			pieces.push(run);
			continue;
		}
		const [, before, words, after] = /^(\s*)([\s\S]*?)(\s*)$/.exec(run.text)!;
		add(before, []);
		// What is marked ends with its line.
		add(words, words.includes('\n') ? [] : run.marks);
		add(after, []);
	}
	return pieces.length === 0 ? '' : writeLines(pieces).trim();
}

/** Each line by itself: signs are read line by line. */
function writeLines(pieces: Inline[]): string {
	const lines: Inline[][] = [[]];
	for (const piece of pieces) {
		if (piece.kind !== 'words') {
			lines.at(-1)!.push(piece);
			continue;
		}
		for (const [i, text] of piece.text.split('\n').entries()) {
			if (i > 0) lines.push([]);
			if (text !== '') lines.at(-1)!.push({ ...piece, text });
		}
	}
	return lines.map((line) => writeInline(line)).join('\n');
}
