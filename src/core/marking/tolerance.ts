/** A number that is right, and how far from it is right as well. `relative`: `amount` is a share of the answer. */
export type Tolerated = { answer: number; tolerance: { kind: 'absolute' | 'relative'; amount: number } };

/**
 * Whether a number is near enough. One exactly on the edge is inside: what binary fractions add to a difference, some
 * 2⁻⁵² of the numbers it is made of, must not decide that. There is no floor below it: a key of 1.6e-19 takes no 0.
 */
export function isWithin(read: number, { answer, tolerance: { kind, amount } }: Tolerated): boolean {
	const allowed = kind === 'absolute' ? amount : Math.abs(answer) * amount;
	const last = 1e-12 * Math.max(Math.abs(read), Math.abs(answer));
	return Math.abs(read - answer) <= allowed + last;
}
