import type { Content } from 'pdfmake/interfaces';
import { blocksOf, inlineOf, type Inline } from '$core/paper';

/** A text of several lines on paper, with its lists and tables; formulas as their TeX. */
export function textOnPaper(text: string): Content[] {
	return blocksOf(text).map((block): Content => {
		if (block.kind === 'line') return { text: lineOf(block.inline) };
		if (block.kind === 'list') {
			const items = block.items.map((item): Content => ({ text: lineOf(item) }));
			return block.isOrdered ? { ol: items, margin: [0, 2, 0, 2] } : { ul: items, margin: [0, 2, 0, 2] };
		}
		const [head, ...rows] = block.rows;
		return {
			margin: [0, 4, 0, 4],
			table: {
				headerRows: 1,
				body: [
					head.map((cell): Content => ({ text: lineOf(cell), bold: true })),
					...rows.map((cells) => cells.map((cell): Content => ({ text: lineOf(cell) })))
				]
			}
		};
	});
}

/** One line on paper, after what stands before it. */
export function lineOnPaper(text: string, before = ''): Content[] {
	return [before, ...lineOf(inlineOf(text))];
}

function lineOf(pieces: Inline[]): Content[] {
	return pieces.map((piece): Content => {
		if (piece.kind === 'formula') return piece.tex;
		if (piece.kind === 'gap') return '____________';
		const { text, marks } = piece;
		return {
			text,
			...(marks.includes('strong') && { bold: true }),
			...(marks.includes('emphasis') && { italics: true }),
			...(marks.includes('sub') && { sub: true }),
			...(marks.includes('sup') && { sup: true })
		};
	});
}
