/** Where a site that may be opened leads, from what was written for it; null: nowhere that a browser should go. */
export function siteAddress(written: string): string | null {
	const text = written.trim();
	try {
		const url = new URL(/^[a-z][a-z0-9+.-]*:/i.test(text) && !/^[^/:]+:\d/.test(text) ? text : `https://${text}`);
		const isOutside = url.protocol === 'https:' || url.protocol === 'http:';
		return isOutside && url.hostname.includes('.') && url.username === '' ? url.href : null;
	} catch {
		return null;
	}
}
