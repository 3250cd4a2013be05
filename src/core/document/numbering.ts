import { below, child, childrenOf, valueOf, type Element } from './xml';

/** What stands before a numbered paragraph. */
export type Label =
	| { kind: 'number'; value: number }
	/** A letter, or anything below the first level: a choice of the question above it. */
	| { kind: 'letter' }
	| { kind: 'bullet' };

type Level = { format: string; start: number };
type Numbered = { list: string; level: number };

/** Formats that letter choices (ECMA-376 part 1, 17.18.59). */
const LETTERS = new Set(['lowerLetter', 'upperLetter']);

/** The numbering of a word processor's document: what it would print before each paragraph, counted on as it comes. */
export class Numbering {
	#levels = new Map<string, Map<number, Level>>();
	/** Which list the numbering of a paragraph belongs to, and where it begins anew. */
	#lists = new Map<string, { list: string; anew: Map<number, number> }>();
	#ofStyle = new Map<string, Numbered>();
	#counts = new Map<string, number[]>();
	#begun = new Set<string>();

	/** @param numbering `w:numbering` @param styles `w:styles`; each undefined: the document has none */
	constructor(numbering: Element | undefined, styles: Element | undefined) {
		for (const one of childrenOf(numbering, 'w:abstractNum')) {
			const levels = childrenOf(one, 'w:lvl').map((level): [number, Level] => [
				Number(level.attributes['w:ilvl'] ?? 0),
				{ format: valueOf(level, 'w:numFmt') ?? 'decimal', start: Number(valueOf(level, 'w:start') ?? 1) }
			]);
			this.#levels.set(one.attributes['w:abstractNumId'] ?? '', new Map(levels));
		}
		for (const one of childrenOf(numbering, 'w:num')) {
			const anew = childrenOf(one, 'w:lvlOverride').flatMap((level): [number, number][] => {
				const start = valueOf(level, 'w:startOverride');
				return start === undefined ? [] : [[Number(level.attributes['w:ilvl'] ?? 0), Number(start)]];
			});
			this.#lists.set(one.attributes['w:numId'] ?? '', {
				list: valueOf(one, 'w:abstractNumId') ?? '',
				anew: new Map(anew)
			});
		}
		const all = below(styles ? [styles] : [], 'w:style');
		for (const style of all) {
			const found = this.#numberedBy(style, all, 8);
			if (found) this.#ofStyle.set(style.attributes['w:styleId'] ?? '', found);
		}
	}

	#numberedBy(style: Element, all: Element[], left: number): Numbered | null {
		const own = numberedIn(child(style, 'w:pPr'));
		if (own) return own;
		const parent = valueOf(style, 'w:basedOn');
		const above = left > 0 && parent ? all.find((one) => one.attributes['w:styleId'] === parent) : undefined;
		return above ? this.#numberedBy(above, all, left - 1) : null;
	}

	/** What stands before the next paragraph; null: nothing does. @param properties its `w:pPr` */
	label(properties: Element | undefined): Label | null {
		const numbered = numberedIn(properties) ?? this.#ofStyle.get(valueOf(properties, 'w:pStyle') ?? '') ?? null;
		// Number 0 takes a numbering away that the style would give.
		if (!numbered || numbered.list === '0') return null;
		const { list, anew } = this.#lists.get(numbered.list) ?? { list: numbered.list, anew: new Map<number, number>() };
		const { level } = numbered;
		const { format, start } = this.#levels.get(list)?.get(level) ?? { format: 'decimal', start: 1 };
		const counts = this.#counts.get(list) ?? [];
		if (!this.#begun.has(numbered.list) && anew.size > 0) for (const [at, value] of anew) counts[at] = value - 1;
		this.#begun.add(numbered.list);
		counts[level] = (counts[level] ?? start - 1) + 1;
		counts.length = level + 1;
		this.#counts.set(list, counts);
		if (format === 'bullet' || format === 'none') return { kind: 'bullet' };
		return LETTERS.has(format) || level > 0 ? { kind: 'letter' } : { kind: 'number', value: counts[level] };
	}
}

function numberedIn(properties: Element | undefined): Numbered | null {
	const own = child(properties, 'w:numPr');
	const list = valueOf(own, 'w:numId');
	return list === undefined ? null : { list, level: Number(valueOf(own, 'w:ilvl') ?? 0) };
}
