/** `sessionStorage` goes with the tab, `localStorage` stays on the device. */
type Where = 'sessionStorage' | 'localStorage';

/**
 * Keeps something under a name, as JSON. A browser that refuses storage throws when it is only named, and one that is
 * full when it is written; what is to be kept is then there as long as the page is open.
 */
export function keepIn(where: Where, name: string, value: unknown): void {
	try {
		globalThis[where].setItem(name, JSON.stringify(value));
	} catch {
		// Whoever keeps it here can go on without.
	}
}

/** What was kept under a name; null: nothing that can be read. */
export function keptIn<T>(where: Where, name: string): T | null {
	try {
		return JSON.parse(globalThis[where].getItem(name) ?? 'null');
	} catch {
		return null;
	}
}

/** Forgets what was kept under these names. */
export function dropFrom(where: Where, ...names: string[]): void {
	try {
		for (const name of names) globalThis[where].removeItem(name);
	} catch {
		// Nothing was kept, then.
	}
}
