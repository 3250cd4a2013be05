const LETTERS = 'abcdefghijkmnpqrstuvwxyz23456789';

/** An id for a question or a choice: ten signs, as good as never twice in a paper. */
export function newId(): string {
	return [...crypto.getRandomValues(new Uint8Array(10))].map((byte) => LETTERS[byte % LETTERS.length]).join('');
}
