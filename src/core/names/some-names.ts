/** `a, b and c`. */
export function listed(all: string[]): string {
	return all.length < 2 ? all.join('') : `${all.slice(0, -1).join(', ')} and ${all[all.length - 1]}`;
}

/**
 * Names in a sentence: `Ann Bell, Bo Moor and Cy Ito`, or `Ann Bell, Bo Moor, Cy Ito and 4 more`.
 * @param most how many are named before the others are counted; a single one is never counted
 */
export function someNames(names: string[], most = 3): string {
	return names.length > most + 1 ? listed([...names.slice(0, most), `${names.length - most} more`]) : listed(names);
}
