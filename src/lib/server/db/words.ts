import type { Query } from './open';

/** Narrows a query to rows in which every word of the text stands somewhere in the columns; wild cards are taken as they are. */
export function whereEveryWord(query: ReturnType<Query['queryBuilder']>, text: string, columns: string[]): void {
	for (const word of text.split(/\s+/).filter(Boolean)) {
		const like = `%${word.replace(/[\\%_]/g, (sign) => `\\${sign}`)}%`;
		query.where((any) => columns.forEach((column) => any.orWhereRaw("?? LIKE ? ESCAPE '\\'", [column, like])));
	}
}
