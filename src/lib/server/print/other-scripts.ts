/** What the document's own font has no letters for, and the font that has: runs of it, with the spaces inside. */
const SCRIPTS = [
	{ font: 'Hebrew', run: /[\p{Script=Hebrew}]+(?:[\s\p{M}]+[\p{Script=Hebrew}]+)*/gu },
	{ font: 'Arabic', run: /[\p{Script=Arabic}]+(?:[\s\p{M}]+[\p{Script=Arabic}]+)*/gu }
];
const ISOLATES = /[\u2066-\u2069]/g;
const NO_BREAK = '\u00a0';

type Run = { text: string; font?: string };

/**
 * A document's content with each run of another script in a font of its own. pdfmake draws words from left to right, each
 * by itself; a name that runs right to left is therefore kept one word, whose letters the font puts in order.
 */
export function inOtherScripts(content: unknown): unknown {
	if (typeof content === 'string') {
		const runs = runsOf(content);
		return typeof runs === 'string' ? runs : { text: runs };
	}
	if (Array.isArray(content)) return content.map(inOtherScripts);
	if (content === null || typeof content !== 'object') return content;
	return Object.fromEntries(
		Object.entries(content).map(([key, value]) => [
			key,
			key === 'text' && typeof value === 'string' ? runsOf(value) : inOtherScripts(value)
		])
	);
}

function runsOf(text: string): string | Run[] {
	const plain = text.replace(ISOLATES, '');
	const found = SCRIPTS.flatMap(({ font, run }) =>
		[...plain.matchAll(run)].map((match) => ({ font, at: match.index, text: match[0] }))
	).sort((a, b) => a.at - b.at);
	if (found.length === 0) return plain;
	const runs: Run[] = [];
	let done = 0;
	for (const one of found) {
		if (one.at > done) runs.push({ text: plain.slice(done, one.at) });
		runs.push({ text: one.text.replace(/\s+/g, NO_BREAK), font: one.font });
		done = one.at + one.text.length;
	}
	if (done < plain.length) runs.push({ text: plain.slice(done) });
	return runs;
}
