import { isolated } from './isolated';

/** Names as they are kept, also as a row of the database has them. */
export type Named = { given?: unknown; family?: unknown };

/**
 * Given name and family name in one, for files that other programs read. Somebody may have one name alone, which is kept as
 * the family name.
 */
export function plainName({ given, family }: Named): string {
	return [given, family].filter(Boolean).join(' ');
}

/** Given name and family name as they are read on the screen and on paper, inside a sentence too. */
export function fullName(person: Named): string {
	return isolated(plainName(person));
}
