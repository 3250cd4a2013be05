import { plainLetters } from '$core/names';
import type { Query } from './open';

/** SQLite's own comparison knows case in ASCII only; `fold` is ours (see open.ts), and is asked where there are other letters. */
const LIKE = "(?? LIKE ? ESCAPE '\\' OR (?? GLOB '*[^ -~]*' AND fold(??) LIKE ? ESCAPE '\\'))";
const like = (column: string, pattern: string) => [column, pattern, column, column, pattern];
/** The words of a text, wild cards taken as they are; an accent alone stays what it is, or it would be found everywhere. */
const wordsOf = (text: string) =>
	text
		.split(/\s+/)
		.filter(Boolean)
		.map((word) => (plainLetters(word) || word).replace(/[\\%_]/g, (sign) => `\\${sign}`));

/** Narrows a query to rows in which every word of the text stands somewhere in the columns, whatever its case and accents. */
export function whereEveryWord(query: ReturnType<Query['queryBuilder']>, text: string, columns: string[]): void {
	for (const word of wordsOf(text))
		query.where((any) => columns.forEach((column) => any.orWhereRaw(LIKE, like(column, `%${word}%`))));
}

/** Puts rows first in which a column begins with the text's first word. */
export function beginningFirst(query: ReturnType<Query['queryBuilder']>, text: string, columns: string[]): void {
	const [first = ''] = wordsOf(text);
	query.orderByRaw(
		`(${columns.map(() => LIKE).join(' OR ')}) DESC`,
		columns.flatMap((column) => like(column, `${first}%`))
	);
}

/** Puts rows first whose instant is nearest. */
export function nearestFirst(query: ReturnType<Query['queryBuilder']>, column: string, at: number): void {
	query.orderByRaw('abs(?? - ?)', [column, at]);
}
