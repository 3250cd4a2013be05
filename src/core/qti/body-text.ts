import katex from 'katex';
import { stemPieces, type Medium } from '../paper';
import { child, element, hasClass, isElement, readXml, textIn, type XmlNode } from './xml';

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
 * A stem as XHTML: a paragraph for each line, formulas as MathML that keeps its TeX, gaps as what `gap` makes of them.
 */
export function writeText(
	text: string,
	gaps: readonly string[] = [],
	gap: (id: string) => XmlNode = () => element('span')
) {
	return text.split('\n').map((line) => {
		const keeps = NEEDS_SPACE.test(line) ? { 'xml:space': 'preserve' } : {};
		const pieces = stemPieces(line, gaps).map((piece) =>
			piece.kind === 'words' ? piece.text : piece.kind === 'gap' ? gap(piece.id) : mathOf(piece.tex)
		);
		return element(
			'p',
			keeps,
			pieces.filter((piece) => piece !== '')
		);
	});
}

/** A text inside a line, as a choice has it. */
export function writeInline(text: string): (XmlNode | string)[] {
	if (text.includes('\n') || NEEDS_SPACE.test(text)) return writeText(text);
	return stemPieces(text)
		.map((piece) => (piece.kind === 'formula' ? mathOf(piece.tex) : piece.kind === 'words' ? piece.text : ''))
		.filter((piece) => piece !== '');
}

function mathOf(tex: string): XmlNode {
	const html = katex.renderToString(tex, { throwOnError: false, trust: false, output: 'mathml' });
	const read = readXml(html);
	const math = read.ok ? child(read.root, 'math') : null;
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
	const lines: string[] = [''];
	const isFresh = () => lines[lines.length - 1] === '';
	let opened = 0;
	const write = (text: string) => void (lines[lines.length - 1] += text);
	const breakLine = () => void lines.push('');

	function walk(node: XmlNode | string, preserve: boolean): void {
		if (!isElement(node)) {
			const text = preserve ? node : node.replace(/[ \t\r\n]+/g, ' ');
			if (preserve) node.split('\n').forEach((line, i) => (i > 0 && breakLine(), write(line)));
			else write(isFresh() ? text.trimStart() : text);
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
		if (name === 'sub' || name === 'sup') return write(`$${name === 'sub' ? '_' : '^'}{${textIn(node).trim()}}$`);
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
	const tex = find(math);
	if (tex === null) leftOut.add('the layout of a formula');
	return `$${(tex ?? textIn(math)).replace(/\$/g, '').replace(/\s+/g, ' ')}$`;
}
