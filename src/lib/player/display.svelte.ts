import type { Merge } from '$core/grants';
import { keepIn, keptIn } from '$ui/browser-storage';

/** How the paper looks on this device. */
export type Look = 'paper' | 'light' | 'strong' | 'night' | 'sand';
type Kept = {
	size: number;
	look: Look;
	spacing: number;
	letters: number;
	plain: boolean;
	ruler: boolean;
	calm: boolean;
};

/** What each look is called, and by which class it is drawn. */
export const LOOKS: Record<Look, { name: string; class: string }> = {
	paper: { name: 'As on this device', class: '' },
	light: { name: 'Paper', class: 'look-light' },
	strong: { name: 'Black on white', class: 'look-strong' },
	night: { name: 'Light on dark', class: 'dark' },
	sand: { name: 'Sand, softer', class: 'look-sand' }
};
export const SIZES = [100, 125, 150, 175, 200];
export const SPACINGS = [1.4, 1.8, 2.2];
/** Between letters, as a share of their size; words stand a little further apart with them (WCAG 2.2, 1.4.12). */
export const LETTERS = [0, 0.06, 0.12];
const STANDARD: Kept = {
	size: 100,
	look: 'paper',
	spacing: 1.4,
	letters: 0,
	plain: false,
	ruler: false,
	calm: false
};

/** The size in per cent that comes nearest to a magnification. */
export function sizeOf(magnification: number): number {
	return Math.min(200, Math.max(100, Math.round((magnification * 100) / 25) * 25));
}

/** The candidate's own choice of size, colours and spacing; begins with what was granted and is kept on the device. */
export class Display {
	size = $state(STANDARD.size);
	look = $state<Look>(STANDARD.look);
	spacing = $state(STANDARD.spacing);
	letters = $state(STANDARD.letters);
	/** Questions stand in letters without serifs. */
	plain = $state(STANDARD.plain);
	ruler = $state(STANDARD.ruler);
	/** Time and counts are hidden; warnings come all the same. */
	calm = $state(STANDARD.calm);

	constructor(
		private readonly key: string,
		granted: Merge['display']
	) {
		const kept = this.#read() ?? {
			...STANDARD,
			size: sizeOf(granted.magnification),
			look: granted.colours ?? (granted.contrast ? ('strong' as const) : ('paper' as const)),
			spacing: granted.spacing ?? STANDARD.spacing,
			ruler: granted.ruler
		};
		Object.assign(this, kept);
	}

	set(change: Partial<Kept>) {
		Object.assign(this, change);
		const { size, look, spacing, letters, plain, ruler, calm } = this;
		keepIn('localStorage', this.key, { size, look, spacing, letters, plain, ruler, calm });
	}

	#read(): Kept | null {
		const kept = keptIn<Kept>('localStorage', this.key);
		return kept && SIZES.includes(kept.size) ? { ...STANDARD, ...kept } : null;
	}
}
