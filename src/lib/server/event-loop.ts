/**
 * Lets everything that waits have its turn. The database answers without ever waiting, so a long piece of work that only
 * awaits it would keep answers and beats waiting until it is done.
 */
export function giveWay(): Promise<void> {
	return new Promise((resolve) => setImmediate(resolve));
}

/** A long list part by part, giving way between two of them. @param size of each part but the last */
export async function* inParts<T>(list: T[], size: number): AsyncGenerator<T[]> {
	for (let from = 0; from < list.length; from += size) {
		if (from > 0) await giveWay();
		yield list.slice(from, from + size);
	}
}
