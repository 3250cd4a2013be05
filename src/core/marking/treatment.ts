import type { AnswerValue } from '../paper';

/** What is changed of one question after it was sat. */
export type Correction =
	/** Another answer is the right one. */
	| { kind: 'key'; answer: AnswerValue }
	/** This answer earns the points as well. */
	| { kind: 'accept'; answer: AnswerValue }
	/** Everyone who had the question gets its points. */
	| { kind: 'for_all' }
	/** It earns no points, and its points are not part of the total. */
	| { kind: 'leave_out' }
	| { kind: 'points'; points: number }
	/** Somebody has looked at it and it stays as it is. */
	| { kind: 'keep' }
	/** As the paper has it: everything before this is taken back. */
	| { kind: 'restore' };

export const CORRECTION_KINDS = ['key', 'accept', 'for_all', 'leave_out', 'points', 'keep', 'restore'] as const;

/** How a question is marked by all that was corrected of it. */
export type Treatment = {
	/** Instead of the paper’s own; undefined: the paper’s. */
	key?: AnswerValue;
	/** What is right besides. */
	also: AnswerValue[];
	counts: 'as_marked' | 'for_all' | 'left_out';
	/** What it is worth now; undefined: what the paper says. */
	points?: number;
};

export const UNTREATED: Treatment = { also: [], counts: 'as_marked' };

/** How a question is marked after one more correction. */
export function treat(treatment: Treatment, correction: Correction): Treatment {
	switch (correction.kind) {
		case 'key':
			return { ...treatment, key: correction.answer };
		case 'accept':
			return { ...treatment, also: [...treatment.also, correction.answer] };
		case 'for_all':
			return { ...treatment, counts: 'for_all' };
		case 'leave_out':
			return { ...treatment, counts: 'left_out' };
		case 'points':
			return { ...treatment, points: correction.points };
		case 'keep':
			return treatment;
		case 'restore':
			return UNTREATED;
	}
}

/** By question: how it is marked after these corrections, in the order in which they came into force. */
export function treatmentsOf(corrections: { questionId: string; correction: Correction }[]): Map<string, Treatment> {
	const treatments = new Map<string, Treatment>();
	for (const { questionId, correction } of corrections)
		treatments.set(questionId, treat(treatments.get(questionId) ?? UNTREATED, correction));
	return treatments;
}
