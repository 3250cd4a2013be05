/**
 * A path of ours, whatever a link names: nobody who has just signed in is sent elsewhere. Read as browsers read it, who
 * drop tabs and line breaks and take a backslash for a slash.
 */
export function ownPath(to: string | null, url: URL): string {
	if (!to) return '/';
	try {
		const there = new URL(to, url.origin);
		const path = there.pathname + there.search + there.hash;
		// What is left once dots are gone may name another place: it is read once more, as the browser will read it.
		return new URL(path, url.origin).href === there.href && there.origin === url.origin ? path : '/';
	} catch {
		return '/';
	}
}
