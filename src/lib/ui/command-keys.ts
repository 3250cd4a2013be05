import { nanoid } from 'nanoid';
import { send, type Answer, type Send } from './post';

/** A key that nobody asks for any more is dropped: by then the person has looked at what stands and decided anew. */
const KEPT_MS = 60 * 60_000;
const MOST = 200;

/**
 * The idempotency keys of commands that are on their way. Until an answer with a status came, it is not known whether a
 * command was carried out: the same command then goes under the same key, so that pressing again does nothing twice.
 */
export class CommandKeys {
	#keys = new Map<string, { key: string; at: number }>();

	constructor(
		private readonly now: () => number = Date.now,
		private readonly draw: () => string = nanoid
	) {}

	/** The key of this command: the one it was last sent under, while that is not settled. */
	of(command: string): string {
		const known = this.#keys.get(command);
		if (known && this.now() - known.at < KEPT_MS) return known.key;
		const key = this.draw();
		this.#keys.set(command, { key, at: this.now() });
		// Oldest first: a Map keeps the order in which it was filled.
		while (this.#keys.size > MOST) this.#keys.delete(this.#keys.keys().next().value!);
		return key;
	}

	/** It is known what became of the command; the next one like it is another. */
	settle(command: string) {
		this.#keys.delete(command);
	}
}

const keys = new CommandKeys();

/**
 * Sends a command that must not be carried out twice, with its key in the body. The server remembers its answer under
 * the key; a lost answer, or one that says nothing of the command (5xx), keeps the key for the next try.
 * @param field where the server looks for the key
 * @param by the way that it goes
 */
export async function sendCommand<T>(
	method: 'POST' | 'PUT' | 'DELETE',
	path: string,
	body: Record<string, unknown>,
	{ field = 'commandId', keys: store = keys, by = send }: { field?: string; keys?: CommandKeys; by?: Send } = {}
): Promise<Answer<T>> {
	const command = `${method} ${path} ${JSON.stringify(body)}`;
	const answer = await by<T>(method, path, { ...body, [field]: store.of(command) });
	if (answer.ok || (answer.status > 0 && answer.status < 500)) store.settle(command);
	return answer;
}
