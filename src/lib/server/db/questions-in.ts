import type { Query } from './open';

/** What tells a stored paper from others, as a column `card` of JSON; null where nothing is said. */
export function cardIn(db: Query, table: 'paper' | 'paper_draft') {
	return db.raw("json_extract(??, '$.card') as card", [`${table}.content`]);
}

/** How many questions a stored paper has, as a column `questions`: counted where it lies, so that lists read no paper. */
export function questionsIn(db: Query, table: 'paper' | 'paper_draft') {
	return db.raw(
		"(select coalesce(sum(json_array_length(part.value, '$.questions')), 0) from json_each(??, '$.parts') as part) as questions",
		[`${table}.content`]
	);
}
