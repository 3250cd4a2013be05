/** `pt` is `Portuguese`. */
export function languageName(tag: string): string {
	try {
		return new Intl.DisplayNames(['en'], { type: 'language' }).of(tag) ?? tag;
	} catch {
		return tag;
	}
}

/** `pt` and `pt-PT` are: who asks for the one is served by the other. */
export function isSameLanguage(a: string, b: string): boolean {
	return a.split('-')[0].toLowerCase() === b.split('-')[0].toLowerCase();
}
