/**
 * A value as JSON with the names of each object in their order, so that equal values are equal texts, in whatever order
 * they were written. As RFC 8785 (JSON Canonicalization Scheme), which sorts names by UTF-16 units and writes numbers
 * as ECMAScript does; but names that are whole numbers come first, by size, as JavaScript keeps them.
 */
export function canonicalJson(value: unknown): string {
	return JSON.stringify(value, (_, part: unknown) =>
		typeof part === 'object' && part !== null && !Array.isArray(part)
			? Object.fromEntries(Object.entries(part).sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0)))
			: part
	);
}
