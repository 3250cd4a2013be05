import { SvelteMap } from 'svelte/reactivity';
import { formulasIn, plainText, textsIn, type DrawnFormula } from '$core/paper';

/** Formulas as the server drew them, by their TeX. A page shows one paper. */
export const drawnFormulas = new SvelteMap<string, DrawnFormula>();

/** Whether something has formulas that the server had no time to draw. */
export function lacksFormulas(content: unknown): boolean {
	return textsIn(content).some((text) => text.includes('$') && formulasIn(text).some((tex) => !drawnFormulas.has(tex)));
}

/** A text as it is read aloud, and as a browser takes it for a name: formulas in words. */
export function spokenText(text: string, gaps?: string[]): string {
	return plainText(text, (tex) => drawnFormulas.get(tex)?.words ?? tex, gaps);
}
