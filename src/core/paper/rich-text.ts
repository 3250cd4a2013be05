import { isSame } from './same';

/** How words look. */
export type Mark = 'strong' | 'emphasis' | 'sub' | 'sup' | 'code';
/** A piece of a line: words, a formula in TeX, or a gap to be filled in. */
export type Inline =
	| { kind: 'words'; text: string; marks: Mark[] }
	| { kind: 'formula'; tex: string }
	| { kind: 'gap'; id: string };
/** A line of its own, a list, or a table whose first row is its heading. */
export type Block =
	| { kind: 'line'; inline: Inline[] }
	| { kind: 'list'; isOrdered: boolean; items: Inline[][] }
	| { kind: 'table'; rows: Inline[][][] };

/** In the order in which they are written around each other. */
const DELIMITERS: [Mark, string][] = [
	['strong', '**'],
	['emphasis', '__'],
	['code', '`'],
	['sub', '~'],
	['sup', '^']
];
const GAP = /\[([A-Za-z0-9]{1,12})\]/y;
/** Signs that a backslash makes plain. */
const ESCAPED = /[!-/:-@[-`{-~]/;

/**
 * Takes a line apart. A formula stands between dollar signs; a gap is `[id]` for an id among `gaps`; `**strong**`,
 * `__emphasis__`, `~sub~`, `^sup^` and `` `code` ``. What is not closed, or has spaces where it may have none, is words.
 */
export function inlineOf(text: string, gaps: readonly string[] = []): Inline[] {
	const pieces: Inline[] = [];
	read(text, gaps, [], pieces);
	return pieces;
}

function read(text: string, gaps: readonly string[], marks: Mark[], pieces: Inline[]): void {
	let words = '';
	const end = () => {
		if (words !== '') pieces.push({ kind: 'words', text: words, marks });
		words = '';
	};
	for (let at = 0; at < text.length;) {
		if (text[at] === '\\' && ESCAPED.test(text[at + 1] ?? '')) {
			words += text[at + 1];
			at += 2;
			continue;
		}
		const formula = formulaAt(text, at);
		if (formula !== null) {
			end();
			pieces.push({ kind: 'formula', tex: formula });
			at += formula.length + 2;
			continue;
		}
		GAP.lastIndex = at;
		const gap = GAP.exec(text);
		if (gap && gaps.includes(gap[1])) {
			end();
			pieces.push({ kind: 'gap', id: gap[1] });
			at += gap[0].length;
			continue;
		}
		const marked = markedAt(text, at, marks);
		if (marked) {
			end();
			const { mark, from, to, next } = marked;
			const inner = text.slice(from, to);
			if (mark === 'code') pieces.push({ kind: 'words', text: inner, marks: [...marks, mark] });
			else read(inner, gaps, [...marks, mark], pieces);
			at = next;
			continue;
		}
		words += text[at++];
	}
	end();
}

/** The TeX of a formula that begins here; null: none does. */
export function formulaAt(text: string, at: number): string | null {
	if (text[at] !== '$') return null;
	const close = text.indexOf('$', at + 1);
	return close > at + 1 ? text.slice(at + 1, close) : null;
}

function markedAt(text: string, at: number, marks: Mark[]) {
	for (const [mark, sign] of DELIMITERS) {
		if (!text.startsWith(sign, at) || marks.includes(mark)) continue;
		const from = at + sign.length;
		const to = closeOf(text, from, sign, mark);
		if (to !== null) return { mark, from, to, next: to + sign.length };
	}
	return null;
}

/** Where what a sign began ends; null: nowhere. */
function closeOf(text: string, from: number, sign: string, mark: Mark): number | null {
	const first = text[from];
	if (first === undefined || /\s/.test(first) || first === sign[0]) return null;
	for (let at = from; at < text.length; at++) {
		if (mark === 'code') {
			if (text[at] === '`') return at;
			continue;
		}
		if ((mark === 'sub' || mark === 'sup') && /\s/.test(text[at])) return null;
		if (text[at] === '\\') at++;
		else if (formulaAt(text, at) !== null) at += formulaAt(text, at)!.length + 1;
		else if (at > from && text.startsWith(sign, at) && !/\s/.test(text[at - 1])) return at;
	}
	return null;
}

const BULLET = /^- (.*)$/;
const NUMBERED = /^(\d{1,2})\. (.*)$/;
const ROW = /^\|(.*)\|\s*$/;
const DIVIDER = /^\|(?:\s*-{3,}\s*\|)+\s*$/;

/**
 * Takes a text apart: lines, lists (`- so`, or `1. so` from one on) and tables (rows between bars, the first divided from
 * the rest by `|---|---|`). Plain words are lines, one for each.
 */
export function blocksOf(text: string, gaps: readonly string[] = []): Block[] {
	const lines = text.split('\n');
	const blocks: Block[] = [];
	for (let at = 0; at < lines.length;) {
		const table = tableAt(lines, at, gaps);
		const items = table ? [] : listAt(lines, at);
		if (table) {
			blocks.push(table.block);
			at += table.lines;
		} else if (items.length > 0) {
			const isOrdered = NUMBERED.test(lines[at]);
			blocks.push({ kind: 'list', isOrdered, items: items.map((item) => inlineOf(item, gaps)) });
			at += items.length;
		} else blocks.push({ kind: 'line', inline: inlineOf(lines[at++], gaps) });
	}
	return blocks;
}

function listAt(lines: string[], at: number): string[] {
	const items: string[] = [];
	const isOrdered = NUMBERED.test(lines[at]);
	for (let next = at; next < lines.length; next++) {
		const numbered = NUMBERED.exec(lines[next]);
		const item = isOrdered
			? numbered && Number(numbered[1]) === items.length + 1
				? numbered[2]
				: undefined
			: BULLET.exec(lines[next])?.[1];
		if (item === undefined) break;
		items.push(item);
	}
	return items;
}

function tableAt(lines: string[], at: number, gaps: readonly string[]) {
	if (!ROW.test(lines[at]) || !DIVIDER.test(lines[at + 1] ?? '')) return null;
	const rows: string[][] = [cellsOf(lines[at])];
	let next = at + 2;
	for (; next < lines.length && ROW.test(lines[next]); next++) rows.push(cellsOf(lines[next]));
	const width = rows[0].length;
	const block: Block = {
		kind: 'table',
		rows: rows.map((cells) => Array.from({ length: width }, (_, i) => inlineOf(cells[i] ?? '', gaps)))
	};
	return { block, lines: next - at };
}

/** The cells of a row; a bar that a backslash makes plain, or in a formula, parts none. */
function cellsOf(line: string): string[] {
	const row = ROW.exec(line)![1];
	const cells = [''];
	for (let at = 0; at < row.length; at++) {
		const formula = formulaAt(row, at);
		if (row[at] === '\\' && at + 1 < row.length) cells[cells.length - 1] += row[at] + row[++at];
		else if (formula !== null) {
			cells[cells.length - 1] += `$${formula}$`;
			at += formula.length + 1;
		} else if (row[at] === '|') cells.push('');
		else cells[cells.length - 1] += row[at];
	}
	return cells.map((cell) => cell.trim());
}

/** Writes pieces as a line that is read as the same; backslashes only where it would be read otherwise. */
export function writeInline(pieces: Inline[]): string {
	const bare = writeRun(pieces, DELIMITERS, (text) => text);
	const gaps = pieces.flatMap((piece) => (piece.kind === 'gap' ? [piece.id] : []));
	return isSame(inlineOf(bare, gaps), pieces) ? bare : writeRun(pieces, DELIMITERS, escaped);
}

/** Words that mean nothing but themselves, whatever signs are in them. */
export function escapedWords(text: string): string {
	return writeInline(text === '' ? [] : [{ kind: 'words', text, marks: [] }]);
}

function escaped(text: string): string {
	return text.replace(/[\\*_`~^$|]/g, '\\$&');
}

function writeRun(pieces: Inline[], delimiters: typeof DELIMITERS, plain: (text: string) => string): string {
	if (pieces.length === 0) return '';
	const [[mark, sign] = [], ...others] = delimiters;
	if (mark === undefined) return pieces.map((piece) => bare(piece, plain)).join('');
	let written = '';
	for (let at = 0; at < pieces.length;) {
		const isMarked = has(pieces[at], mark);
		let to = at + 1;
		while (to < pieces.length && has(pieces[to], mark) === isMarked) to++;
		const run = writeRun(pieces.slice(at, to), others, plain);
		written += isMarked ? around(run, sign!, mark) : run;
		at = to;
	}
	return written;
}

const has = (piece: Inline, mark: Mark) => piece.kind === 'words' && piece.marks.includes(mark);

function bare(piece: Inline, plain: (text: string) => string): string {
	if (piece.kind === 'formula') return `$${piece.tex}$`;
	if (piece.kind === 'gap') return `[${piece.id}]`;
	return piece.marks.includes('code') ? piece.text.replaceAll('`', '’') : plain(piece.text);
}

/** Signs stand close to the words; what may have no spaces is written word by word. */
function around(run: string, sign: string, mark: Mark): string {
	const [, before, words, after] = /^(\s*)(.*?)(\s*)$/s.exec(run)!;
	if (words === '') return run;
	const inside = mark === 'sub' || mark === 'sup' ? words.replace(/\s+/g, (space) => `${sign}${space}${sign}`) : words;
	return `${before}${sign}${inside}${sign}${after}`;
}

/** Writes blocks as a text that is read as the same. */
export function writeBlocks(blocks: Block[]): string {
	return blocks
		.map((block) => {
			switch (block.kind) {
				case 'line':
					return asLine(writeInline(block.inline));
				case 'list':
					return block.items.map((item, i) => `${block.isOrdered ? `${i + 1}.` : '-'} ${writeInline(item)}`).join('\n');
				case 'table': {
					const [head, ...rows] = block.rows.map((cells) => `| ${cells.map(writeCell).join(' | ')} |`);
					return [head, `|${' --- |'.repeat(block.rows[0].length)}`, ...rows].join('\n');
				}
			}
		})
		.join('\n');
}

/** A bar in a cell would part it, and a dollar sign could hide one. */
function writeCell(pieces: Inline[]): string {
	const parts = pieces.some((piece) => piece.kind === 'words' && /[|$]/.test(piece.text));
	return parts ? writeRun(pieces, DELIMITERS, escaped) : writeInline(pieces);
}

/** A line that begins like an item of a list is none. */
function asLine(line: string): string {
	return line.replace(/^(-|\d{1,2}\.)(?= )/, (start) => `${start.slice(0, -1)}\\${start.slice(-1)}`);
}

/** The first words of a text, in one line, to tell questions apart: at most so many characters, and a sign that it goes on. */
export function firstWords(text: string, most = 90): string {
	const plain = plainText(text).replace(/\s+/g, ' ').trim();
	if (plain.length <= most) return plain;
	const cut = plain.slice(0, most);
	// Between two words, unless there is only one: some scripts write none apart.
	const end = /\s/.test(plain[most]) ? most : cut.lastIndexOf(' ');
	return `${(end > most / 2 ? cut.slice(0, end) : cut).trimEnd()}…`;
}

/**
 * A text without what says how it looks: to be read aloud, shown in a line, or compared.
 * @param wordsOf what stands for a formula; its TeX unless told otherwise
 * @param gaps those to be filled in; each becomes an ellipsis
 */
export function plainText(text: string, wordsOf = (tex: string) => tex, gaps?: readonly string[]): string {
	const words = (pieces: Inline[]) =>
		pieces
			.map((piece) => (piece.kind === 'words' ? piece.text : piece.kind === 'formula' ? wordsOf(piece.tex) : '…'))
			.join('');
	return blocksOf(text, gaps)
		.flatMap((block) => {
			if (block.kind === 'line') return [words(block.inline)];
			return block.kind === 'list' ? block.items.map(words) : block.rows.map((cells) => cells.map(words).join(', '));
		})
		.join('\n');
}
