import { z } from 'zod';

/** An essay is the longest; a page of close writing is some 3,000 signs. */
const LONGEST = 40_000;
const Value = z.union([
	z.boolean(),
	z.string().max(LONGEST),
	z.array(z.string().max(64)).max(60),
	z.record(z.string().max(64), z.string().max(500)).refine((parts) => Object.keys(parts).length <= 60),
	z.null()
]);

/** One revision of one answer, as a device sends it; apart from its number. */
export const RevisionContent = z.object({
	questionId: z.string().min(1).max(64),
	value: Value,
	marked: z.boolean(),
	struck: z.array(z.string().max(64)).max(30),
	inViewMs: z.number().int().min(0).max(86_400_000)
});
/** A device's own number of a revision. */
export const Seq = z.number().int().min(1).max(2_000_000_000);
export const RevisionAsked = RevisionContent.extend({ seq: Seq });
