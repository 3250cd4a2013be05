import type { Query } from './open';

const PAGE = 5_000;

/** Rows of a table in the order in which they were written, page by page. @param narrow which of them */
export async function* pagedRows(
	db: Query,
	table: string,
	narrow: (query: ReturnType<Query['queryBuilder']>) => void,
	columns = ['*']
): AsyncGenerator<Record<string, unknown>> {
	for (let last = -1; ;) {
		// By an index, all that are narrowed to would be sorted again for each page: in their own order they are read once.
		const query = db
			.from(db.raw('?? NOT INDEXED', [table]))
			.where('rowid', '>', last)
			.orderBy('rowid')
			.limit(PAGE);
		narrow(query);
		const rows: { _place: number }[] = await query.select('rowid as _place', ...columns);
		for (const { _place, ...row } of rows) {
			last = _place;
			yield row;
		}
		if (rows.length < PAGE) return;
	}
}
