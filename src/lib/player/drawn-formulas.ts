import { SvelteMap } from 'svelte/reactivity';
import type { DrawnFormula } from '$core/paper';

/** Formulas as the server drew them, by their TeX. A page shows one paper. */
export const drawnFormulas = new SvelteMap<string, DrawnFormula>();
