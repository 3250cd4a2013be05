/** A piece of a stem: words, a formula in TeX, or a gap to be filled in. */
export type StemPiece =
	{ kind: 'words'; text: string } | { kind: 'formula'; tex: string } | { kind: 'gap'; id: string };

const PIECES = /\$([^$]+)\$|\[([A-Za-z0-9]{1,12})\]/g;

/**
 * Takes a stem apart. A formula stands between dollar signs; a gap is `[id]` for an id that is among `gaps`, any other
 * bracket is words. A single dollar sign is words, too.
 */
export function stemPieces(stem: string, gaps: readonly string[] = []): StemPiece[] {
	const pieces: StemPiece[] = [];
	let from = 0;
	for (const match of stem.matchAll(PIECES)) {
		const [all, tex, gap] = match;
		if (gap !== undefined && !gaps.includes(gap)) continue;
		if (match.index > from) pieces.push({ kind: 'words', text: stem.slice(from, match.index) });
		pieces.push(tex !== undefined ? { kind: 'formula', tex } : { kind: 'gap', id: gap });
		from = match.index + all.length;
	}
	if (from < stem.length) pieces.push({ kind: 'words', text: stem.slice(from) });
	return pieces;
}

/** How many words a text has, as people count them: runs of letters and figures between spaces. */
export function wordCount(text: string): number {
	return text.split(/\s+/).filter((word) => /[\p{L}\p{N}]/u.test(word)).length;
}
