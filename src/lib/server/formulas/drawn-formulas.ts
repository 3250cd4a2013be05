import { LRUCache } from 'lru-cache';
import { formulasIn, textsIn, type DrawnFormula } from '$core/paper';
import type { House } from '../house';
import { ThreadError, type ThreadKind } from '../thread';
import type { FormulaDrawing } from './drawing';

const DRAWING: ThreadKind<FormulaDrawing> = {
	entry: 'src/lib/server/formulas/drawing.ts',
	memoryMb: 256,
	mostWaiting: 40
};
/** So many are drawn as one task. */
const PART = 20;
/** In processor time; the first of a language loads its rules as well. */
const DEADLINE_MS = 20_000;
/** A candidate does not wait longer for a drawing: their device can draw it by itself. */
const WAIT_MS = 2_000;
const MOST_KEPT_LETTERS = 30_000_000;

/** A drawing follows from the formula alone, so that every house and every candidate has the same. */
const kept = new LRUCache<string, DrawnFormula>({
	maxSize: MOST_KEPT_LETTERS,
	sizeCalculation: ({ html, words }, key) => (html?.length ?? 0) + words.length + key.length
});
/** What the thread did not survive is not put before it again for a while. */
const failed = new LRUCache<string, true>({ max: 10_000, ttl: 10 * 60_000 });
const underWay = new Map<string, Promise<unknown>>();

/**
 * The formulas in what a candidate is sent, drawn and in words. Those that are not drawn in time are left out: the
 * device draws them by itself.
 * @param sent anything with texts in it
 * @param language BCP 47, of the paper
 * @returns `formulas` by their TeX; `isWhole`: none was left out
 */
export async function drawnFormulas(
	{ threads }: Pick<House, 'threads'>,
	sent: unknown,
	language: string
): Promise<{ formulas: Record<string, DrawnFormula>; isWhole: boolean }> {
	const formulas = [...new Set(textsIn(sent).flatMap((text) => (text.includes('$') ? formulasIn(text) : [])))];
	const keyOf = (tex: string) => `${language} ${tex}`;
	const missing = formulas.filter((tex) => [kept, failed, underWay].every((known) => !known.has(keyOf(tex))));
	for (let from = 0; from < missing.length; from += PART) {
		const part = missing.slice(from, from + PART);
		const drawing = threads
			.run(DRAWING, 'draw', { formulas: part, language }, DEADLINE_MS)
			.then((drawn) => drawn.forEach((one, i) => kept.set(keyOf(part[i]), one)))
			.catch((error) => {
				// Whoever waited may have gone: nothing is thrown here, and the device draws what is missing.
				const isToCome = error instanceof ThreadError && (error.code === 'too_many' || error.code === 'stopped');
				if (!isToCome) part.forEach((tex) => failed.set(keyOf(tex), true));
			})
			.finally(() => part.forEach((tex) => underWay.delete(keyOf(tex))));
		for (const tex of part) underWay.set(keyOf(tex), drawing);
	}
	const awaited = formulas.flatMap((tex) => underWay.get(keyOf(tex)) ?? []);
	if (awaited.length > 0) {
		let timer: NodeJS.Timeout | undefined;
		const late = new Promise((done) => (timer = setTimeout(done, WAIT_MS)));
		await Promise.race([Promise.all(awaited), late]).finally(() => clearTimeout(timer));
	}
	const drawn = formulas.flatMap((tex) => {
		const one = kept.get(keyOf(tex));
		return one ? [[tex, one] as const] : [];
	});
	// What the thread did not survive will not come later either.
	const isWhole = formulas.every((tex) => kept.has(keyOf(tex)) || failed.has(keyOf(tex)));
	return { formulas: Object.fromEntries(drawn), isWhole };
}
