/** Rows by what they share, in their order. */
export function groupBy<T, K>(rows: T[], keyOf: (row: T) => K): Map<K, T[]> {
	const groups = new Map<K, T[]>();
	for (const row of rows) {
		const group = groups.get(keyOf(row));
		if (group) group.push(row);
		else groups.set(keyOf(row), [row]);
	}
	return groups;
}
