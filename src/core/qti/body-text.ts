import katex from 'katex';
import { blocksOf, escapedWords, formulaFault, inlineOf, type Inline, type Mark, type Medium } from '../paper';
import { below, child, element, hasClass, isElement, readXml, textIn, type XmlNode } from './xml';
import { texOfMathMl } from './math-ml';

/** Blocks of XHTML, each of which is a line of its own. */
const BLOCKS = new Set(
	'p div li ul ol dl dt dd table tr thead tbody tfoot caption blockquote pre h1 h2 h3 h4 h5 h6 section figure figcaption'.split(
		' '
	)
);
/** White space that readers of XHTML would take for one space, or for none. */
const NEEDS_SPACE = /^\s|\s$|\s\s|[\t\u00a0]/;
/** Never shown, and told when they are left out. */
const UNSAFE = new Set(['script', 'style', 'object', 'iframe', 'embed', 'form', 'input', 'button', 'link', 'meta']);

/**
 * A text as XHTML: a paragraph for each line, lists, tables, formulas as MathML that keeps its TeX, gaps as what `gap`
 * makes of them.
 */
export function writeText(
	text: string,
	gaps: readonly string[] = [],
	gap: (id: string) => XmlNode = () => element('span')
): XmlNode[] {
	const inside = (pieces: Inline[]) => written(pieces, gap);
	return blocksOf(text, gaps).map((block): XmlNode => {
		switch (block.kind) {
			case 'line':
				return element('p', keepingSpace(block.inline), inside(block.inline));
			case 'list':
				return element(
					block.isOrdered ? 'ol' : 'ul',
					{},
					block.items.map((item) => element('li', keepingSpace(item), inside(item)))
				);
			case 'table': {
				const row = (cells: Inline[][], name: 'th' | 'td') =>
					element(
						'tr',
						{},
						cells.map((cell) => element(name, keepingSpace(cell), inside(cell)))
					);
				const [head, ...rows] = block.rows;
				return element('table', {}, [
					element('thead', {}, [row(head, 'th')]),
					element(
						'tbody',
						{},
						rows.map((cells) => row(cells, 'td'))
					)
				]);
			}
		}
	});
}

const ELEMENTS: Record<Mark, string> = { strong: 'strong', emphasis: 'em', code: 'code', sub: 'sub', sup: 'sup' };

function written(pieces: Inline[], gap: (id: string) => XmlNode): (XmlNode | string)[] {
	return pieces.map((piece) => {
		if (piece.kind === 'gap') return gap(piece.id);
		if (piece.kind === 'formula') return mathOf(piece.tex);
		return piece.marks.reduceRight<XmlNode | string>((node, mark) => element(ELEMENTS[mark], {}, [node]), piece.text);
	});
}

function keepingSpace(pieces: Inline[]): Record<string, string> {
	const words = pieces.map((piece) => (piece.kind === 'words' ? piece.text : 'x')).join('');
	return NEEDS_SPACE.test(words) ? { 'xml:space': 'preserve' } : {};
}

/** A text inside a line, as a choice has it. */
export function writeInline(text: string): (XmlNode | string)[] {
	if (text.includes('\n') || NEEDS_SPACE.test(text)) return writeText(text);
	return written(inlineOf(text), () => element('span'));
}

function mathOf(tex: string): XmlNode {
	const html =
		formulaFault(tex) === null
			? katex.renderToString(tex, { throwOnError: false, trust: false, output: 'mathml' })
			: null;
	const read = html === null ? null : readXml(html);
	const math = read?.ok ? child(read.root, 'math') : null;
	const annotation = element('annotation', { encoding: 'application/x-tex' }, [tex]);
	const shown = math ? withoutAnnotation(math) : element('mtext', {}, [tex]);
	const inside = math ? ((child(shown, 'semantics') ?? shown).children as (XmlNode | string)[]) : [shown];
	return element('math', { xmlns: 'http://www.w3.org/1998/Math/MathML' }, [
		element('semantics', {}, [element('mrow', {}, inside), annotation])
	]);
}

function withoutAnnotation(node: XmlNode): XmlNode {
	const children = node.children
		.filter((one) => !isElement(one) || one.name !== 'annotation')
		.map((one) => (isElement(one) ? withoutAnnotation(one) : one));
	return { ...node, attributes: {}, children };
}

/** A file that a body names. */
export type ReadMedium = { src: string } & Pick<Medium, 'alt' | 'width' | 'height' | 'plays'>;

export type ReadText = {
	text: string;
	/** Pictures, sound and film, with their sources as they are named. */
	media: ReadMedium[];
	/** What could not be taken along, in words. */
	leftOut: string[];
};

/**
 * XHTML as a text of ours. `place` says what stands for an interaction inside it, or null where it is left to others.
 */
export function readBody(nodes: (XmlNode | string)[], place: (node: XmlNode) => string | null = () => null): ReadText {
	const media: ReadMedium[] = [];
	const leftOut = new Set<string>();
	let lines: string[] = [''];
	const isFresh = () => lines[lines.length - 1] === '';
	let opened = 0;
	const write = (text: string) => void (lines[lines.length - 1] += text);
	const breakLine = () => void lines.push('');
	/** What these say, in one line. */
	function captured(inside: (XmlNode | string)[], preserve: boolean): string {
		const [before, count] = [lines, opened];
		[lines, opened] = [[''], 0];
		inside.forEach((one) => walk(one, preserve));
		const text = lines.join(' ');
		[lines, opened] = [before, count];
		return text;
	}
	/** Rows between bars, the first divided from the rest; as many cells as the first row has. */
	function writeTable(table: XmlNode) {
		const rows = below(table, 'tr').map((row) =>
			row.children
				.filter((one) => isElement(one) && (one.name === 'td' || one.name === 'th'))
				.map((cell) => captured((cell as XmlNode).children, (cell as XmlNode).attributes.space === 'preserve').trim())
		);
		if (rows.length === 0) return;
		const row = (cells: string[]) =>
			`| ${cells.map((cell) => cell.replace(/(?<!\\)\|(?![^$]*\$)/g, '\\|')).join(' | ')} |`;
		if (opened++ > 0) breakLine();
		write(row(rows[0]));
		breakLine();
		write(`|${' --- |'.repeat(rows[0].length)}`);
		for (const cells of rows.slice(1)) {
			breakLine();
			write(row(cells));
		}
	}
	/** A simple list is one; what is nested in another is lines with a dash. */
	function writeList(list: XmlNode) {
		const items = list.children.filter((one) => isElement(one) && one.name === 'li') as XmlNode[];
		for (const [i, item] of items.entries()) {
			if (opened++ > 0) breakLine();
			write(list.name === 'ol' ? `${i + 1}. ` : '- ');
			write(captured(item.children, item.attributes.space === 'preserve'));
		}
	}
	const SIGNS: Record<string, string> = { strong: '**', b: '**', em: '__', i: '__', code: '`', sub: '~', sup: '^' };
	function writeMarked(node: XmlNode, preserve: boolean) {
		const sign = SIGNS[node.name];
		const [, before, text, after] = /^(\s*)(.*?)(\s*)$/s.exec(captured(node.children, preserve))!;
		if (text === '') return write(before + after);
		// What stands below or above may have no spaces.
		const isTight = node.name === 'sub' || node.name === 'sup';
		const inside = isTight ? text.replace(/\s+/g, (space) => sign + space + sign) : text;
		write(`${before}${sign}${inside}${sign}${after}`);
	}

	function walk(node: XmlNode | string, preserve: boolean): void {
		if (!isElement(node)) {
			const text = preserve ? node : node.replace(/[ \t\r\n]+/g, ' ');
			if (preserve) node.split('\n').forEach((line, i) => (i > 0 && breakLine(), write(escapedWords(line))));
			else write(escapedWords(isFresh() ? text.trimStart() : text));
			return;
		}
		const placed = place(node);
		if (placed !== null) return write(placed);
		const { name, attributes } = node;
		if (UNSAFE.has(name)) return void leftOut.add(`<${name}>`);
		if (name === 'math') return write(formulaIn(node, leftOut));
		if (MEDIA.has(name)) return void media.push(mediumIn(node));
		if (hasClass(node, 'medium')) {
			// It holds one file and is no line of the text.
			const plays = Number(/\bplays-(\d{1,2})\b/.exec(attributes.class)?.[1] ?? 0);
			const held = node.children.filter(isElement).filter((one) => MEDIA.has(one.name));
			return void media.push(...held.map((one) => ({ ...mediumIn(one), ...(plays > 0 ? { plays } : {}) })));
		}
		if (name === 'br') return breakLine();
		if (name in SIGNS) return writeMarked(node, preserve);
		if (name === 'table') return writeTable(node);
		if ((name === 'ul' || name === 'ol') && below(node, 'ul', 'ol', 'table').length === 0) return writeList(node);
		const keeps = preserve || attributes.space === 'preserve' || name === 'pre';
		if (!BLOCKS.has(name)) {
			node.children.forEach((one) => walk(one, keeps));
			return;
		}
		// Each paragraph is a line, an empty one an empty line; what only groups others is none.
		const groups = node.children.some((one) => isElement(one) && BLOCKS.has(one.name));
		if (!groups && opened++ > 0) breakLine();
		if (name === 'li') write('– ');
		for (const one of node.children) {
			if (groups && !isElement(one) && one.trim() === '') continue;
			walk(one, keeps);
			if (name === 'tr') write(' ');
		}
		if (!groups && !keeps) lines[lines.length - 1] = lines[lines.length - 1].trimEnd();
	}
	for (const node of nodes) {
		if (!isElement(node) && node.trim() === '' && nodes.some(isElement)) {
			if (opened === 0 && !isFresh()) write(' ');
			continue;
		}
		walk(node, false);
	}
	return { text: lines.join('\n'), media, leftOut: [...leftOut] };
}

const MEDIA = new Set(['img', 'audio', 'video']);

function mediumIn(node: XmlNode): ReadMedium {
	const { attributes } = node;
	const pixels = (text: string | undefined) => (/^\d{1,5}$/.test(text ?? '') && Number(text) > 0 ? Number(text) : null);
	const [width, height] = [pixels(attributes.width), pixels(attributes.height)];
	return {
		src: attributes.src ?? child(node, 'source')?.attributes.src ?? '',
		alt: attributes.alt ?? attributes.arialabel ?? '',
		...(width && height ? { width, height } : {})
	};
}

function formulaIn(math: XmlNode, leftOut: Set<string>): string {
	const find = (node: XmlNode): string | null => {
		if (node.name === 'annotation' && /tex/i.test(node.attributes.encoding ?? '')) return textIn(node);
		for (const one of node.children.filter(isElement)) {
			const found = find(one);
			if (found !== null) return found;
		}
		return null;
	};
	const tex = find(math) ?? texOfMathMl(math);
	if (tex === null) leftOut.add('the layout of a formula');
	return `$${(tex ?? textIn(math)).replace(/\$/g, '').replace(/\s+/g, ' ')}$`;
}
