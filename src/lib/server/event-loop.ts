import { setTimeout as sleep } from 'node:timers/promises';

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

/** What `work` makes of a long list, part by part, giving way between two of them. @param size of each part but the last */
export async function mapInParts<T, R>(list: T[], size: number, work: (part: T[]) => R[] | Promise<R[]>): Promise<R[]> {
	const made: R[] = [];
	for await (const part of inParts(list, size)) for (const one of await work(part)) made.push(one);
	return made;
}

/** What somebody waits for company; far less than anybody notices. */
const GATHER_MS = 20;
/** Long enough for the next requests of a busy server to be read. */
const TURN_MS = 3;

/**
 * Waits for as long as more keep coming, so that what costs the same for one as for many is done for many at once.
 * @param count of those that wait @param most no more are waited for @param turn what is waited between two counts
 */
export async function gather(
	count: () => number,
	most: number,
	turn: () => Promise<unknown> = () => sleep(TURN_MS)
): Promise<void> {
	const until = performance.now() + GATHER_MS;
	for (let seen = 0; seen < count() && seen < most && performance.now() < until;) {
		seen = count();
		await turn();
	}
}
