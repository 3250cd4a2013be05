import type { Query } from './open';

/** Narrows a query to rows in which every word of the text stands somewhere in the columns; wild cards are taken as they are. */
export function whereEveryWord(query: ReturnType<Query['queryBuilder']>, text: string, columns: string[]): void {
	for (const word of text.split(/\s+/).filter(Boolean)) {
		const like = `%${word.replace(/[\\%_]/g, (sign) => `\\${sign}`)}%`;
		query.where((any) => columns.forEach((column) => any.orWhereRaw("?? LIKE ? ESCAPE '\\'", [column, like])));
	}
}

/** Puts rows first in which a column begins with the text's first word. */
export function beginningFirst(query: ReturnType<Query['queryBuilder']>, text: string, columns: string[]): void {
	const [first] = text.replace(/[%_]/g, '').trim().split(/\s+/);
	const begins = columns.map(() => '?? LIKE ?').join(' OR ');
	query.orderByRaw(
		`(${begins}) DESC`,
		columns.flatMap((column) => [column, `${first}%`])
	);
}

/** Puts rows first whose instant is nearest. */
export function nearestFirst(query: ReturnType<Query['queryBuilder']>, column: string, at: number): void {
	query.orderByRaw('abs(?? - ?)', [column, at]);
}
