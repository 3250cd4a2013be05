/** Whether two values of JSON say the same, whatever the order of their names; what is undefined is not there. */
export function isSame(a: unknown, b: unknown): boolean {
	if (Object.is(a, b)) return true;
	if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
	if (Array.isArray(a) !== Array.isArray(b)) return false;
	const names = new Set([...Object.keys(a), ...Object.keys(b)]);
	return [...names].every((name) => isSame((a as Record<string, unknown>)[name], (b as Record<string, unknown>)[name]));
}
