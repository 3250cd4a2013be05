/** Longer texts are hardly ever the same, and are not worth remembering. */
const SHORT = 200;

/** Reads the same text once: what it is read as is shared, and must not be changed. */
export function readOnce<T>(read: (text: string) => T, longest = SHORT): (text: string) => T {
	const known = new Map<string, T>();
	return (text) => {
		if (text.length > longest) return read(text);
		if (!known.has(text)) known.set(text, read(text));
		return known.get(text)!;
	};
}
