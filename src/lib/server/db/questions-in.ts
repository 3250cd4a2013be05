import type { Query } from './open';

/** How many questions a stored paper has, as a column `questions`: counted where it lies, so that lists read no paper. */
export function questionsIn(db: Query, table: 'paper' | 'paper_draft') {
	return db.raw(
		"(select coalesce(sum(json_array_length(part.value, '$.questions')), 0) from json_each(??, '$.parts') as part) as questions",
		[`${table}.content`]
	);
}
