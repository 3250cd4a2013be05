import katex from 'katex';
import { AS_DRAWN, formulaFault, type DrawnFormula } from '$core/paper';
import { offer } from '../thread';
import { inWords } from './in-words';

/** Putting into words takes with the square of the length: at this one, up to a second. What is longer is said as it is written. */
const LONGEST_IN_WORDS = 400;

/** What it may cost to draw is bounded by `formulaFault`; what costs more is shown as it is written. */
async function drawFormula(tex: string, language: string): Promise<DrawnFormula> {
	if (formulaFault(tex) !== null) return { html: null, words: tex };
	const html = katex.renderToString(tex, AS_DRAWN);
	const mathml = tex.length <= LONGEST_IN_WORDS && /<math[\s\S]*<\/math>/.exec(html)?.[0];
	return { html, words: (mathml && (await inWords(mathml, language))) || tex };
}

const tasks = {
	async draw({ formulas, language }: { formulas: string[]; language: string }): Promise<DrawnFormula[]> {
		const drawn: DrawnFormula[] = [];
		for (const tex of formulas)
			// One that KaTeX stumbles over takes none of the others with it.
			drawn.push(await drawFormula(tex, language).catch(() => ({ html: null, words: tex })));
		return drawn;
	}
};
export type FormulaDrawing = typeof tasks;
offer(tasks);
