import katex from 'katex';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { formulaFault, formulasFault, formulasIn, inlineOf } from '.';
import { runs } from '$core/testing/runs';

describe('a formula', () => {
	it.each([
		String.raw`\def\a{x}\a\a`,
		String.raw`\gdef\a{x}`,
		String.raw`\newcommand{\a}{x}`,
		String.raw`\renewcommand\frac{x}`,
		String.raw`\providecommand{\a}{x}`,
		String.raw`\let\a=b`,
		String.raw`\futurelet\a b`,
		String.raw`\global\edef\a{x}`,
		String.raw`\htmlStyle{color: red}{x}`,
		String.raw`\includegraphics{https://elsewhere.example/x.png}`,
		String.raw`\href{https://elsewhere.example}{x}`,
		'x'.repeat(1_501)
	])('that defines or fetches something, or is endless, is not drawn: %s', (tex) =>
		expect(formulaFault(tex)).not.toBeNull()
	);
	it.each([
		String.raw`x = \frac{-b \pm \sqrt{b^2 - 4ac}}{2a}`,
		String.raw`\begin{pmatrix} 1 & 0 \\ 0 & 1 \end{pmatrix}`,
		String.raw`\left( \sum_{i=1}^n \delta_i \right)^2`,
		String.raw`\text{default}, \longrightarrow, \defeq`,
		String.raw`\charge`
	])('as authors write them is drawn: %s', (tex) => expect(formulaFault(tex)).toBeNull());

	it('that may be drawn is no more than some hundred thousand letters of page, whatever it is made of', () => {
		const piece = fc.constantFrom(
			...String.raw`\frac|\sqrt|{|}|^|_|x|\left(|\right)|\begin{matrix}|\end{matrix}|&|\\|\KaTeX|\pmod{x}|\overbrace|\mathchoice|\text{a}|\binom|12`.split(
				'|'
			)
		);
		fc.assert(
			fc.property(fc.array(piece, { minLength: 100, maxLength: 400 }), (pieces) => {
				const tex = pieces.join(' ').slice(0, 1_500);
				const html = katex.renderToString(tex, { throwOnError: false, trust: false, strict: false });
				expect(html.length).toBeLessThan(600_000);
			}),
			{ numRuns: runs(40) }
		);
	});

	it('is found where the page finds it', () => {
		const sign = fc.constantFrom('$', 'a', '\\', ' ', '*', '`', '$x$', '5 $');
		fc.assert(
			fc.property(fc.array(sign, { maxLength: 15 }), (signs) => {
				const text = signs.join('');
				const shown = inlineOf(text, []).flatMap((piece) => (piece.kind === 'formula' ? [piece.tex] : []));
				// Within code a dollar is a dollar: there more may be counted than is drawn, and never less.
				expect(formulasIn(text).length).toBeGreaterThanOrEqual(text.includes('`') ? 0 : shown.length);
			})
		);
	});
});

it('a question’s formulas are bounded together', () => {
	const text = Array.from({ length: 9 }, () => `$${'x'.repeat(1_000)}$`).join(' ');
	expect(formulasFault([text])).toContain('9000 letters');
	expect(formulasFault([text.slice(0, 7_000), 'no formula', 'costs 5 $'])).toBeNull();
});
