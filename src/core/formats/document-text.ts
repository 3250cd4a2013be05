import { XMLParser } from 'fast-xml-parser';

/** A node of the parser's ordered output: one name with its children, and perhaps attributes. */
type Node = Record<string, unknown>;

const parser = new XMLParser({
	preserveOrder: true,
	ignoreAttributes: true,
	trimValues: false,
	// A document's own entities would be a way to make gigabytes of a line; these five are XML's.
	processEntities: true,
	htmlEntities: false,
	unpairedTags: ['br', 'img'],
	stopNodes: []
});

/**
 * The text of a document that was written in a word processor, as `readText` reads it: numbered paragraphs as `1.`, the
 * level below as `a)`, what is bold as a whole as `**so**`. @param html paragraphs, lists and tables as mammoth writes them
 */
export function documentText(html: string): string {
	const lines: string[] = [];
	walk(parser.parse(`<body>${html}</body>`) as Node[], lines, 0, { question: 0 });
	return lines.join('\n').replace(/\n{3,}/g, '\n\n');
}

function walk(nodes: Node[], lines: string[], depth: number, count: { question: number }): void {
	for (const node of nodes) {
		const name = nameOf(node);
		const children = childrenOf(node);
		if (name === 'ol' || name === 'ul') list(children, lines, depth, count);
		else if (name === 'table') for (const row of within(children, 'tr')) lines.push(rowText(row));
		else if (/^(p|h[1-6])$/.test(name)) {
			const text = inline(children);
			lines.push(isBold(children) && text !== '' ? `**${text}**` : text);
		} else if (children.length > 0) walk(children, lines, depth, count);
		else if (name === '#text' && textOf(node).trim() !== '') lines.push(textOf(node).trim());
	}
}

/** The first level numbers questions, on through the document; the second letters their choices. */
function list(items: Node[], lines: string[], depth: number, count: { question: number }): void {
	let letter = 0;
	for (const item of items) {
		if (nameOf(item) !== 'li') continue;
		const children = childrenOf(item);
		const own = children.filter((child) => !/^(ol|ul)$/.test(nameOf(child)));
		const text = inline(own);
		const marked = isBold(own) && text !== '' ? `**${text}**` : text;
		if (depth === 0) lines.push('', `${++count.question}. ${text}`);
		else lines.push(`${String.fromCharCode('a'.charCodeAt(0) + (letter++ % 26))}) ${marked}`);
		for (const child of children) if (/^(ol|ul)$/.test(nameOf(child))) list(childrenOf(child), lines, depth + 1, count);
	}
}

const nameOf = (node: Node): string => Object.keys(node).find((key) => key !== ':@') ?? '';
const childrenOf = (node: Node): Node[] => {
	const value = node[nameOf(node)];
	return Array.isArray(value) ? (value as Node[]) : [];
};
const textOf = (node: Node): string => String(node['#text'] ?? '');

function inline(nodes: Node[]): string {
	return nodes
		.map((node) => {
			const name = nameOf(node);
			if (name === '#text') return textOf(node);
			if (name === 'br') return '\n';
			if (name === 'img') return '(a picture stood here)';
			if (/^(ol|ul)$/.test(name)) return '';
			return inline(childrenOf(node));
		})
		.join('')
		.trim();
}

/** Whether all that is written there is bold, as somebody marks the right choice. */
function isBold(nodes: Node[]): boolean {
	const written = nodes.filter((node) => nameOf(node) !== '#text' || textOf(node).trim() !== '');
	return (
		written.length > 0 &&
		written.every((node) =>
			nameOf(node) === 'p' ? isBold(childrenOf(node)) : ['strong', 'b'].includes(nameOf(node)) && inline([node]) !== ''
		)
	);
}

function within(nodes: Node[], name: string): Node[] {
	return nodes.flatMap((node) => (nameOf(node) === name ? [node] : within(childrenOf(node), name)));
}
const rowText = (row: Node): string =>
	childrenOf(row)
		.filter((cell) => /^t[dh]$/.test(nameOf(cell)))
		.map((cell) => inline(childrenOf(cell)))
		.join(' ');
