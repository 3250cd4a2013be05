import type { JSONContent } from '@tiptap/core';
import { blocksOf, writeBlocks, type Block, type Inline, type Mark } from '$core/paper';

/** What the editor calls the looks of words. */
const MARKS: Record<Mark, string> = {
	strong: 'bold',
	emphasis: 'italic',
	code: 'code',
	sub: 'subscript',
	sup: 'superscript'
};
const OURS = Object.fromEntries(Object.entries(MARKS).map(([mark, theirs]) => [theirs, mark])) as Record<string, Mark>;

/** A text as the editor's document. Formulas and gaps stand in it as they are typed, `$h$` and `[a]`. */
export function toDocument(text: string): JSONContent {
	return { type: 'doc', content: blocksOf(text).map(toNode) };
}

function toNode(block: Block): JSONContent {
	switch (block.kind) {
		case 'line':
			return paragraph(block.inline);
		case 'list':
			return {
				type: block.isOrdered ? 'orderedList' : 'bulletList',
				content: block.items.map((item) => ({ type: 'listItem', content: [paragraph(item)] }))
			};
		case 'table':
			return {
				type: 'table',
				content: block.rows.map((cells, row) => ({
					type: 'tableRow',
					content: cells.map((cell) => ({ type: row === 0 ? 'tableHeader' : 'tableCell', content: [paragraph(cell)] }))
				}))
			};
	}
}

function paragraph(pieces: Inline[]): JSONContent {
	const content = pieces.map((piece): JSONContent => {
		if (piece.kind === 'formula') return { type: 'text', text: `$${piece.tex}$` };
		if (piece.kind === 'gap') return { type: 'text', text: `[${piece.id}]` };
		return { type: 'text', text: piece.text, marks: piece.marks.map((mark) => ({ type: MARKS[mark] })) };
	});
	return content.length > 0 ? { type: 'paragraph', content } : { type: 'paragraph' };
}

/** The editor's document as a text. What it can't say, as a list in a list, becomes what comes nearest. */
export function fromDocument(document: JSONContent): string {
	return writeBlocks((document.content ?? []).flatMap(fromNode));
}

function fromNode(node: JSONContent): Block[] {
	const children = node.content ?? [];
	switch (node.type) {
		case 'paragraph':
			return [{ kind: 'line', inline: inlineIn(node) }];
		case 'bulletList':
		case 'orderedList':
			return [{ kind: 'list', isOrdered: node.type === 'orderedList', items: children.map(inlineIn) }];
		case 'table': {
			const rows = children.map((row) => (row.content ?? []).map(inlineIn));
			return rows.length > 0 && rows[0].length > 0 ? [{ kind: 'table', rows }] : [];
		}
		default:
			return children.flatMap(fromNode);
	}
}

/** All that stands in a node, in one line. */
function inlineIn(node: JSONContent): Inline[] {
	if (node.type === 'text') return piecesOf(node);
	const pieces: Inline[] = [];
	for (const [i, child] of (node.content ?? []).entries()) {
		if (i > 0 && child.type !== 'text') pieces.push({ kind: 'words', text: ' ', marks: [] });
		pieces.push(...inlineIn(child));
	}
	return pieces;
}

function piecesOf({ text = '', marks = [] }: JSONContent): Inline[] {
	const ours = marks.flatMap(({ type }) => OURS[type] ?? []);
	if (ours.includes('code')) return [{ kind: 'words', text, marks: ours }];
	return text
		.split(/(\$[^$]+\$)/)
		.filter((piece) => piece !== '')
		.map((piece): Inline =>
			/^\$[^$]+\$$/.test(piece)
				? { kind: 'formula', tex: piece.slice(1, -1) }
				: { kind: 'words', text: piece, marks: ours }
		);
}
