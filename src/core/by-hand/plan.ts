import { counted } from '../names';
/** What earns points in an answer. */
export type Criterion = { id: string; text: string; points: number };

/** How the answers to one question are marked by people. */
export type HandPlan = {
	/** Who marks, and with which share of the answers; shares need not add up to anything. */
	markers: { id: string; share: number }[];
	/** Per cent of the answers that a second person marks as well. */
	secondPercent: number;
	/** Two marks that lie further apart than this, in points, are decided by a third person. */
	tolerance: number;
	rubric: Criterion[];
};

export const NO_PLAN: HandPlan = { markers: [], secondPercent: 0, tolerance: 0, rubric: [] };

/** Why a plan can't be kept; null: it can. @param points what the question is worth */
export function planFault(plan: HandPlan, points: number): string | null {
	const counting = plan.markers.filter(({ share }) => share > 0);
	if (plan.markers.length > 0 && counting.length === 0) return 'Give at least one marker a share of more than 0.';
	if (plan.secondPercent > 0 && counting.length < 2)
		return 'Second marking takes two people. Add another marker, or set it to 0 %.';
	const sum = plan.rubric.reduce((total, { points }) => total + points, 0);
	if (plan.rubric.length > 0 && Math.abs(sum - points) > 1e-9)
		return `The criteria add up to ${counted(sum, 'point')}, and the question is worth ${points}. Change one of them.`;
	return null;
}

/** A number from 0 to 1 that a text always gives, as if drawn (FNV-1a with a final mix, MurmurHash3's). */
export function drawnFrom(text: string): number {
	let hash = 0x811c9dc5;
	for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
	hash = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b);
	hash = Math.imul(hash ^ (hash >>> 13), 0xc2b2ae35);
	return ((hash ^ (hash >>> 16)) >>> 0) / 2 ** 32;
}

/**
 * Who marks this answer first, second and so on: weighted rendezvous hashing (Thaler and Ravishankar 1998, with weights
 * after Schindelhauer and Schomaker 2005). Nothing is stored, each has about their share, and a marker who joins takes
 * over only what becomes theirs.
 */
export function markersFor(plan: HandPlan, questionId: string, sittingId: string): string[] {
	return plan.markers
		.filter(({ share }) => share > 0)
		.map(({ id, share }) => ({ id, place: -Math.log(drawnFrom(`${questionId} ${sittingId} ${id}`) + 1e-12) / share }))
		.sort((a, b) => a.place - b.place)
		.map(({ id }) => id);
}

/** Whether a second person marks this answer as well. */
export function isMarkedTwice(plan: HandPlan, questionId: string, sittingId: string): boolean {
	return drawnFrom(`${questionId} ${sittingId} twice`) * 100 < plan.secondPercent;
}
