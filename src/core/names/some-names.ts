/**
 * Names in a sentence: `Ann Bell, Bo Moor and Cy Ito`, or `Ann Bell, Bo Moor, Cy Ito and 4 more`.
 * @param most so many are named where there are more than one beyond it
 */
export function someNames(names: string[], most = 3): string {
	if (names.length > most + 1) return `${names.slice(0, most).join(', ')} and ${names.length - most} more`;
	return names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;
}
