/** Identifiers of QTI begin with a letter or a low line; ids of ours may begin otherwise, and are then marked so. */
const MARK = 'x--';

export function identifierOf(id: string): string {
	return /^[A-Za-z_]/.test(id) && !id.startsWith(MARK) ? id : `${MARK}${id}`;
}

export function idOf(identifier: string): string {
	return identifier.startsWith(MARK) ? identifier.slice(MARK.length) : identifier;
}

/** Whether ids of ours can be like this. */
export function isId(id: string): boolean {
	return /^[A-Za-z0-9_-]{1,40}$/.test(id);
}

/** A name as it was before it was made fit for an address; what is none stays as it is. */
export function decoded(text: string): string {
	try {
		return decodeURIComponent(text);
	} catch {
		return text;
	}
}
