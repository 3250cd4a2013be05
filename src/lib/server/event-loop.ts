/**
 * Lets everything that waits have its turn. The database answers without ever waiting, so a long piece of work that only
 * awaits it would keep answers and beats waiting until it is done.
 */
export function giveWay(): Promise<void> {
	return new Promise((resolve) => setImmediate(resolve));
}
