/**
 * A path of ours, whatever a link names: nobody who has just signed in is sent elsewhere. Read as browsers read it, who
 * drop tabs and line breaks and take a backslash for a slash.
 */
export function ownPath(to: string | null, url: URL): string {
	if (!to) return '/';
	try {
		const there = new URL(to, url.origin);
		return there.origin === url.origin ? there.pathname + there.search + there.hash : '/';
	} catch {
		return '/';
	}
}
